import { wholeCustomer } from '../../../answers/craft'
import { customerIdOf, noSuchCustomer } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'

/** A customer with their craft and papers. */
export default route({ needs: 'apprentice', answer: json(wholeCustomer), refuses: [404] }, async (event) => {
  const id = customerIdOf(event)
  const { customers, crafts } = await repositories(event)
  const customer = await customers.read(id)
  if (!customer) throw noSuchCustomer()
  const [own, papers] = await Promise.all([crafts.list({ customer: id }), customers.papers(id)])
  return { customer, crafts: own.crafts, papers }
})
