import { erasedCustomer } from '../../../answers/craft'
import { customerIdOf, noSuchCustomer } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'

/** Erases a customer: name and contact are blanked everywhere; papers stay without them. It cannot be taken back. */
export default route({ needs: 'owner', answer: json(erasedCustomer), refuses: [404] }, async (event) => {
  const id = customerIdOf(event)
  const { customerData } = await repositories(event)
  if (!(await customerData.erase(id))) throw noSuchCustomer()
  return { erased: id }
})
