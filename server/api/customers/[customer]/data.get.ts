import { setResponseHeader } from 'h3'
import { customerData as answer } from '../../../answers/craft'
import { customerIdOf, noSuchCustomer } from '../../../utils/craft'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'

/** Everything that the shop keeps of a customer, without photos. */
export default route({ needs: 'owner', answer: json(answer), refuses: [404] }, async (event) => {
  const { customerData } = await repositories(event)
  const data = await customerData.all(customerIdOf(event))
  if (!data) throw noSuchCustomer()
  setResponseHeader(event, 'content-disposition', 'attachment; filename="customer.json"')
  return data
})
