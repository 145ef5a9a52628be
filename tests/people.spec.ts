import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Browser, type Page } from '@playwright/test'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from './harness'

const setupCode = 'code-of-the-terminal-of-this-test'
const phoneScreen = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true }
let db: TestDatabase
let server: TestServer

test.beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl, { env: { SHOP_MODE: 'yes', SETUP_CODE: setupCode } })
})
test.afterAll(async () => {
  await server.stop()
  await db.drop()
})

async function choosePassword(page: Page, password: string): Promise<void> {
  await page.getByLabel('Password', { exact: true }).fill(password)
  await page.getByLabel('Password again').fill(password)
}
const newPhone = async (browser: Browser): Promise<Page> =>
  (await browser.newContext({ ...phoneScreen, baseURL: server.url })).newPage()

test('a shop is set up, an apprentice joins on a phone, works, and is signed out', async ({ browser }) => {
  const owner = await (await browser.newContext({ baseURL: server.url })).newPage()

  // Nobody sees anything without signing in; the first owner has the link of the terminal.
  await owner.goto('/rules')
  await expect(owner).toHaveURL(/\/sign-in\?to=/)
  await expect(owner.getByText('Nobody has an account yet.')).toBeVisible()
  await owner.goto(`/join#setup=${setupCode}`)
  await owner.getByLabel('Your name').fill('Isolde Brell')
  await choosePassword(owner, 'seven tall masts')
  await owner.getByRole('button', { name: 'Create owner' }).click()
  await expect(owner.getByRole('list', { name: 'Jobs' })).toBeVisible()

  await owner.getByRole('link', { name: 'People' }).click()
  await owner.getByLabel('Name of a new person').fill('Rasmus')
  await owner.getByRole('combobox', { name: 'Role', exact: true }).selectOption('Apprentice')
  await owner.getByRole('button', { name: 'Invite person' }).click()
  const link = await owner.getByTestId('link').innerText()

  expect((await new AxeBuilder({ page: owner }).setLegacyMode().analyze()).violations).toEqual([])

  const phone = await newPhone(browser)
  await phone.goto(link)
  await expect(phone.getByText('Welcome, Rasmus. You join as apprentice.')).toBeVisible()
  await choosePassword(phone, 'short')
  await phone.getByRole('button', { name: 'Join shop' }).click()
  await expect(phone.getByRole('heading', { name: 'Join the shop' })).toBeVisible()
  await choosePassword(phone, 'eight tall masts')
  await phone.getByRole('button', { name: 'Join shop' }).click()

  // An apprentice's changes are noted under their name; forbidden ones are refused in words.
  await phone.getByRole('link', { name: 'Marigold Tern' }).click()
  await expect(phone.getByTestId('headline')).toContainText('Suits after 3 changes')
  await phone.goto('/rules')
  await phone.getByLabel('Workshop').fill('Another name')
  await expect(phone.getByRole('button', { name: 'Save rules' })).toBeDisabled()
  await expect(phone.getByText('An installer or the owner must do this.')).toBeVisible()

  // Their session ends while they look.
  await owner.reload()
  await owner.getByRole('button', { name: 'Sign out Rasmus everywhere' }).click()
  await expect(owner.getByText('Signed out')).toBeVisible()
  await phone.reload()
  await expect(phone).toHaveURL(/\/sign-in\?to=\/rules/)
  await phone.getByLabel('Name').fill('rasmus')
  await phone.getByLabel('Password').fill('wrong password')
  await phone.getByRole('button', { name: 'Sign in' }).click()
  await expect(phone.getByRole('alert')).toContainText('The name or the password is wrong.')
  await phone.getByLabel('Password').fill('eight tall masts')
  await phone.getByRole('button', { name: 'Sign in' }).click()
  await expect(phone.getByRole('heading', { name: 'Shop rules' })).toBeVisible()

  // A used link says so.
  const other = await newPhone(browser)
  await other.goto(link)
  await expect(other.getByRole('alert')).toContainText('This link was used or is too old.')
})

test('a shared laptop changes between two people by PIN, and a passkey signs in by itself @long', async ({
  browser,
}) => {
  // A name, as passkeys need it.
  const baseURL = server.url.replace('127.0.0.1', 'localhost')
  const page = await (await browser.newContext({ baseURL })).newPage()
  const devices = await page.context().newCDPSession(page)
  await devices.send('WebAuthn.enable')
  await devices.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })
  const signIn = async (name: string, password: string): Promise<void> => {
    await page.getByLabel('Name').fill(name)
    await page.getByLabel('Password').fill(password)
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible()
  }
  const savePin = async (pin: string): Promise<void> => {
    await page.getByRole('link', { name: 'People' }).click()
    await page.getByLabel('PIN, 4 to 8 digits').fill(pin)
    await page.getByRole('button', { name: 'Save PIN' }).click()
    await expect(page.getByText('PIN saved on this device.')).toBeVisible()
  }
  const owner = { name: 'Isolde Brell', password: 'seven tall masts' }
  const send = async <T>(path: string, data: object): Promise<T> =>
    (await (await page.request.post(`${baseURL}/api/${path}`, { data })).json()) as T
  await send('session/begin', { code: setupCode, ...owner })
  const { token } = await send<{ token: string }>('people', { name: 'Rasmus', role: 'apprentice' })
  await send('session/join', { token, password: 'eight tall masts' })
  await page.context().clearCookies()

  await page.goto('/sign-in')
  await signIn(owner.name, owner.password)
  await savePin('4826')
  await page.getByRole('button', { name: 'Add passkey' }).click()
  await expect(page.getByText('Passkey added.')).toBeVisible()
  expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([])
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()

  await expect(page.getByRole('heading', { name: 'Who are you?' })).toBeVisible()
  await signIn('Rasmus', 'eight tall masts')
  await savePin('1937')
  await page.getByRole('link', { name: 'Switch person' }).first().click()
  await page.getByRole('button', { name: 'Isolde Brell' }).click()
  await page.getByLabel('PIN', { exact: true }).fill('0000')
  await page.getByRole('button', { name: 'Enter' }).click()
  await expect(page.getByRole('alert')).toContainText('The PIN is wrong. 4 tries are left.')
  await page.getByLabel('PIN', { exact: true }).fill('4826')
  expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([])
  await page.getByRole('button', { name: 'Enter' }).click()
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible()
  await page.getByRole('link', { name: 'People' }).click()
  await expect(page.getByText('You are signed in as Isolde Brell, owner.')).toBeVisible()

  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'Use passkey' }).click()
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible()
  await page.getByRole('link', { name: 'People' }).click()
  await expect(page.getByText('You are signed in as Isolde Brell, owner.')).toBeVisible()
})
