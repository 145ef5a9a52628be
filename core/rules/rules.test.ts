import { describe, expect, it } from 'vitest'
import { resolveRules, ruleCatalogue, ruleIds } from './rules'

describe('shop rules', () => {
  it('start from their defaults', () => expect(resolveRules().windowLowV).toBe(14.2))

  it('let the job override the shop, and the shop the default', () => {
    const rules = resolveRules({ coldLimitC: -5, chargerSchool: 'replace' }, { coldLimitC: -10 })
    expect(rules).toMatchObject({ coldLimitC: -10, chargerSchool: 'replace', windowHighV: 14.6 })
  })

  it.each(ruleIds)('%s has a default inside its own limits and says why', (id) => {
    const rule = ruleCatalogue[id]
    expect(rule.reason.length).toBeGreaterThan(10)
    if (rule.kind === 'number') {
      expect(rule.default).toBeGreaterThanOrEqual(rule.limits[0])
      expect(rule.default).toBeLessThanOrEqual(rule.limits[1])
    } else {
      expect(Object.keys(rule.options)).toContain(rule.default)
    }
  })
})
