import AxeBuilder from '@axe-core/playwright'
import type { Locator, Page } from '@playwright/test'
import { checkOf, expect, openFile, openInstrument, signIn, test } from './fixtures'

// Most of the tests there are: shared among all workers, not one worker's file.
test.describe.configure({ mode: 'parallel' })

/** Every rule, or those that ask of colours. */
type Audited = 'everything' | 'colours'

async function audit(page: Page, audited: Audited = 'everything') {
  // Let a dialog's fade end: colours are measured as they are painted.
  await page.evaluate(() => {
    const passing = document
      .getAnimations()
      .filter((one) => one.effect?.getComputedTiming().iterations !== Infinity)
    return Promise.all(passing.map((one) => one.finished.catch(() => undefined))).then(() => undefined)
  })
  // A table that changes is not read out whole, and every label names a field that is there.
  expect(await page.locator(':is([aria-live="polite"], [role="status"], [role="alert"]) table').count()).toBe(
    0,
  )
  expect(
    await page.evaluate(() =>
      [...document.querySelectorAll('label[for]')]
        .filter((label) => !document.getElementById(label.getAttribute('for')!))
        .map((label) => label.textContent),
    ),
  ).toEqual([])
  // One document: no need of the page of its own in which the answers of many frames are put together.
  // What passed is not asked for: writing every sound element down took as long as looking.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] })
  if (audited === 'colours') axe.withRules(['color-contrast', 'link-in-text-block'])
  else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  const { violations } = await axe.analyze()
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual(
    [],
  )
}

/** Each view with what a teacher would have on it. */
const VIEWS: [string, (page: Page) => Promise<void>][] = [
  ['Today', async (page) => expect(page.locator('.row').first()).toBeVisible()],
  [
    'Students',
    async (page) => {
      await page.keyboard.press('2')
      await expect(page.getByRole('row', { name: /Orla Venn/ })).toBeVisible()
    },
  ],
  [
    'a student’s file',
    async (page) => {
      await openFile(page, 'Orla Venn')
      await expect(page.locator('.history li').first()).toBeVisible()
    },
  ],
  [
    'who teaches, and who saw and changed what',
    async (page) => {
      await page.goto('/studio/people')
      await page.getByLabel('What', { exact: true }).selectOption('Both')
      await expect(page.locator('.trail li').first()).toBeVisible()
    },
  ],
  [
    'the server',
    async (page) => {
      await page.goto('/server')
      await expect(page.getByRole('region', { name: 'Backup' })).toBeVisible()
    },
  ],
  [
    'a second factor under way',
    async (page) => {
      await page.goto('/account')
      await expect(page.getByRole('form', { name: 'Begin a second factor' })).toBeVisible()
      await page.keyboard.press('f')
      await page.keyboard.type('lantern-round')
      await page.keyboard.press('Enter')
      await expect(page.getByRole('img', { name: 'The secret as a code for a camera' })).toBeVisible()
    },
  ],
  [
    'a week’s plan',
    async (page) => {
      await openFile(page, 'Orla Venn')
      await page.keyboard.press('w')
      await expect(page.locator('.week .item').first()).toBeVisible()
    },
  ],
  [
    'practice of the class',
    async (page) => {
      await page.goto('/practice')
      await expect(page.getByRole('row', { name: /Orla Venn/ })).toBeVisible()
    },
  ],
  [
    'a file without an instrument',
    async (page) => {
      await openFile(page, 'Sunniva Holt')
      await expect(page.getByText('No checks yet')).toBeVisible()
    },
  ],
  [
    'Setup, a question with a measured value',
    async (page) => {
      await openFile(page, 'Aubrey Sill')
      await page.keyboard.press('s')
      await expect(page.getByRole('heading', { name: /nothing hurt/ })).toBeVisible()
      for (let i = 0; i < 8; i++) await page.keyboard.press('y')
      await expect(page.getByRole('heading', { name: /wrist level/ })).toBeVisible()
      await page.keyboard.press('m')
      await page.keyboard.type('24')
      await expect(page.getByText('Not yet: right is')).toBeVisible()
    },
  ],
  [
    'Setup, stopped at an item',
    async (page) => {
      await openFile(page, 'Wren Ottery')
      await page.keyboard.press('s')
      await expect(page.getByRole('heading', { name: /nothing hurt/ })).toBeVisible()
      for (const key of 'yyyyyyyyyyx') await page.keyboard.press(key)
      await expect(page.getByRole('region', { name: 'Stopped here' })).toBeVisible()
    },
  ],
  [
    'Setup, pain',
    async (page) => {
      await openFile(page, 'Beck Tarn')
      await page.keyboard.press('s')
      await expect(page.getByRole('heading', { name: /nothing hurt/ })).toBeVisible()
      await page.keyboard.press('x')
      await expect(page.getByRole('region', { name: 'Pain' })).toBeVisible()
    },
  ],
  [
    'the record of a setup, with fit, gates and schools',
    async (page) => {
      await openFile(page, 'Orla Venn')
      await page.keyboard.press('r')
      await expect(page.getByText('Two settings stand against each other.').first()).toBeVisible()
      await expect(page.getByRole('region', { name: 'Rounds' })).toBeVisible()
    },
  ],
  [
    'the studio',
    async (page) => {
      await page.keyboard.press('8')
      await expect(page.getByRole('region', { name: 'Setup items' })).toBeVisible()
    },
  ],
  [
    'Check with nobody chosen',
    async (page) => {
      await page.keyboard.press('5')
      await expect(page.getByRole('region', { name: 'Students' }).getByRole('button').first()).toBeVisible()
    },
  ],
  [
    'the lend list',
    async (page) => {
      await openFile(page, 'Wren Ottery')
      await page.keyboard.press('l')
      await expect(page.getByRole('option').first()).toBeVisible()
    },
  ],
  [
    'a walk-in’s verdict',
    async (page) => {
      await page.keyboard.press('5')
      await expect(page.getByRole('form', { name: 'Walk-in' })).toBeVisible()
      await page.keyboard.press('w')
      await page.keyboard.type('32.8 cm')
      await page.keyboard.press('Enter')
      // Two notes of each finger.
      for (const cents of ['42 44', '48 46', '38 40']) {
        await page.keyboard.type(cents)
        await page.keyboard.press('Enter')
      }
      await expect(page.getByRole('heading', { name: /The whole hand sits/ })).toBeVisible()
    },
  ],
  [
    'Tapes with a doubtful length',
    async (page) => {
      await page.keyboard.press('3')
      await page.getByLabel('String length').fill('328 cm')
      await expect(page.getByText('Did you mean millimetres')).toBeVisible()
    },
  ],
  [
    'the bench with an outlier among its rings',
    async (page) => {
      await openInstrument(page, 'no. 7')
      await page.keyboard.press('t')
      await page.getByRole('tab', { name: 'Ring and fit' }).click()
      await expect(page.getByText('Is that right? It disagrees with everything else')).toBeVisible()
    },
  ],
  [
    'an instrument and the life of its tapes',
    async (page) => {
      await openInstrument(page, 'no. 7')
      await expect(page.getByRole('img', { name: /notes in its log/ })).toBeVisible()
    },
  ],
  [
    'laying, a step',
    async (page) => {
      await openInstrument(page, 'no. 7')
      await page.keyboard.press('t')
      await expect(page.getByLabel('String length')).toHaveValue(/\d/)
      await page.getByRole('button', { name: /Lay them/ }).click()
      await page.getByRole('button', { name: /Begin/ }).click()
      await expect(page.getByText('tape 1 of')).toBeVisible()
    },
  ],
  [
    'Check with a verdict',
    async (page) => {
      await expect(page.locator('.row').first()).toBeVisible()
      await page.keyboard.press('c')
      await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
      for (const cents of ['40', '44', '38', '42']) {
        await page.keyboard.type(cents)
        await page.keyboard.press('ArrowDown')
      }
      await expect(page.getByRole('heading', { name: /The whole hand sits/ })).toBeVisible()
    },
  ],
  [
    'the atlas with a key compared',
    async (page) => {
      await atlasOf(page, 'Orla Venn')
      await page.keyboard.press('c')
      await page.keyboard.press('ArrowUp')
      await expect(page.getByText('From D major to G major')).toBeVisible()
    },
  ],
  [
    'a hand and its growth',
    async (page) => {
      await openFile(page, 'Nell Farrow')
      await page.keyboard.press('h')
      await expect(page.getByText(/The span grows/)).toBeVisible()
    },
  ],
  [
    'a student over time, two checks side by side',
    async (page) => {
      await openFile(page, 'Orla Venn')
      await page.keyboard.press('o')
      await expect(page.getByRole('img', { name: /Frame, mm/ })).toBeVisible()
      await expect(page.getByRole('slider', { name: /Place on the/ })).toBeVisible()
    },
  ],
  [
    'the eye practised, a hand named',
    async (page) => {
      await page.keyboard.press('5')
      await page.getByRole('button', { name: 'Practise the eye' }).click()
      await expect(page.getByRole('heading', { name: 'What does it do?' })).toBeVisible()
      await page.keyboard.press('Enter')
      await expect(page.getByText('The tool says')).toBeVisible()
    },
  ],
  [
    'every finding',
    async (page) => {
      await page.keyboard.press('Control+k')
      await page.keyboard.type('Every finding')
      await page.keyboard.press('Enter')
      await expect(page.getByRole('heading', { name: 'Too few notes to say' })).toBeAttached()
    },
  ],
  [
    'the palette',
    async (page) => {
      await page.keyboard.press('Control+k')
      await page.keyboard.type('or')
      await expect(page.getByRole('option').first()).toBeVisible()
    },
  ],
  [
    'the list of keys',
    async (page) => {
      await page.keyboard.press('?')
      await expect(page.getByText('This list of keys')).toBeVisible()
    },
  ],
  [
    'the form of a new student',
    async (page) => {
      await page.keyboard.press('2')
      await expect(page.getByRole('button', { name: /New student/ })).toBeVisible()
      await page.keyboard.press('n')
      await expect(page.getByRole('dialog', { name: 'New student' })).toBeVisible()
    },
  ],
]

async function atlasOf(page: Page, name: string) {
  await openFile(page, name)
  await page.keyboard.press('p')
  await expect(page.getByRole('grid', { name: 'Positions and strings' })).toBeVisible()
}

/** Views that differ little from those above, audited once. */
const MORE_VIEWS: typeof VIEWS = [
  [
    'the cupboard',
    async (page) => {
      await page.keyboard.press('7')
      await expect(page.getByRole('row', { name: /no\. 7/ })).toBeVisible()
    },
  ],
  [
    'the atlas of a cello, upright, in a key of many flats',
    async (page) => {
      await atlasOf(page, 'Aubrey Sill')
      await page.keyboard.press('k')
      await page.keyboard.type('Ab harmonic minor')
      await page.keyboard.press('Enter')
      await expect(page.getByText('A♭ harmonic minor · first position')).toBeVisible()
    },
  ],
  [
    'changing size',
    async (page) => {
      await page.goto('/tapes/compare?from=violin%201/2&to=violin%203/4')
      await expect(page.getByRole('row', { name: /Frame/ })).toBeVisible()
    },
  ],
  [
    'a table that is brought in',
    async (page) => {
      await page.goto('/instruments/import')
      await page.getByLabel('Choose the file').setInputFiles({
        name: 'a.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from('label,family,size\nno. 90,harp,1/2\n'),
      })
      await expect(page.getByText('is not violin, viola, cello or bass')).toBeVisible()
    },
  ],
  [
    'the strip before it is printed',
    async (page) => {
      await page.keyboard.press('3')
      await page.getByLabel('String length').fill('328')
      await page.getByRole('button', { name: /Print/ }).click()
      await expect(page.getByRole('img', { name: 'The sheet as it is printed' })).toBeVisible()
    },
  ],
]
for (const [name, open] of MORE_VIEWS)
  test(`WCAG 2.2 AA: ${name}`, async ({ page }) => {
    await open(page)
    await audit(page)
    await insistOnFittingATablet(page)
  })

test('WCAG 2.2 AA: the other views of the Patterns room', async ({ page }) => {
  await atlasOf(page, 'Denzil Crake')
  const views: [string, Locator][] = [
    ['d', page.locator('.staff svg .vf-stavenote').first()],
    ['g', page.getByText(/1 guides/)],
    ['f', page.getByRole('img', { name: /Width of the frame/ })],
  ]
  for (const [key, sign] of views) {
    await page.keyboard.press(key)
    await expect(sign).toBeVisible()
    await audit(page)
    await insistOnFittingATablet(page)
    await page.setViewportSize({ width: 1280, height: 800 })
  }
})

/** In dark the colours change, not the structure: of the views that have the most of them, what is asked of colours. */
const IN_DARK = new Set([
  'Setup, a question with a measured value',
  'Setup, stopped at an item',
  'Setup, pain',
  'the record of a setup, with fit, gates and schools',
  'the studio',
  'Check with nobody chosen',
  'the lend list',
  'Today',
  'a student’s file',
  'Tapes with a doubtful length',
  'the bench with an outlier among its rings',
  'an instrument and the life of its tapes',
  'Check with a verdict',
  'a student over time, two checks side by side',
  'the atlas with a key compared',
])

test.describe('WCAG 2.2 AA', () => {
  for (const [name, open] of VIEWS)
    test(name, async ({ page }) => {
      await open(page)
      await audit(page)
      if (IN_DARK.has(name)) {
        await page.emulateMedia({ colorScheme: 'dark' })
        await expect(page.locator('html.dark')).toHaveCount(1)
        await test.step('in dark', () => audit(page, 'colours'))
      }
      await insistOnFittingATablet(page)
    })
})

/** Turned to a tablet's width, a page needs no sideways scrolling. */
async function insistOnFittingATablet(page: Page) {
  // The last as a desk’s window is, enlarged to 200 %.
  for (const [width, height] of [
    [820, 1180],
    [640, 400],
  ] as const) {
    await page.setViewportSize({ width, height })
    await expect
      .poll(() =>
        page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
      )
      .toBeLessThanOrEqual(0)
  }
}

test('the account is at hand at every width, and leads to its sessions and out', async ({ app, browser }) => {
  const context = await browser.newContext({ baseURL: app.url, viewport: { width: 390, height: 844 } })
  const page = await context.newPage()
  await signIn(page)
  const account = async () => {
    await page.getByRole('button', { name: /^Rooms/ }).click()
    await page.getByRole('button', { name: 'Hester Lowe' }).click()
  }
  await account()
  await page.getByRole('link', { name: 'Account and sessions' }).click()
  await expect(page.getByText('this one', { exact: true })).toBeVisible()
  await audit(page)
  await account()
  await audit(page)
  await page.locator('#account-menu').getByRole('button', { name: 'Sign out' }).click()
  await expect(page).toHaveURL(/sign-in/)
  await context.close()
})

for (const [width, height] of [
  [1280, 800],
  [820, 1180],
] as const)
  test(`a check is one screen at ${width} × ${height}: board, fields, sentence, advice and Keep, and no message over them`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height })
    await checkOf(page, 'Orla Venn')
    for (const [finger, cents] of ['4 5 3 6', '1 2 -3 4', '-3 2 -4 1', '-29 -31 -27 -30'].entries())
      await page.getByLabel(`Finger ${finger + 1}, cents`).fill(cents)
    const verdict = page.getByRole('region', { name: 'Verdict' })
    const needed = [
      page.locator('.board .frame > svg'),
      page.getByLabel('Open string, cents'),
      ...[1, 2, 3, 4].map((finger) => page.getByLabel(`Finger ${finger}, cents`)),
      verdict.getByRole('heading', { name: /narrow/ }),
      verdict.getByText('Check first'),
    ]
    for (const one of [...needed, page.getByRole('button', { name: /Keep this verdict/ })])
      await expect(one).toBeInViewport({ ratio: 1 })
    await page.keyboard.press('Control+Enter')
    const notice = await page.getByText('Kept in the file of Orla Venn.').boundingBox()
    for (const one of needed) {
      const box = (await one.boundingBox())!
      const apart =
        box.x + box.width <= notice!.x ||
        notice!.x + notice!.width <= box.x ||
        box.y + box.height <= notice!.y ||
        notice!.y + notice!.height <= box.y
      expect(apart, (await one.first().textContent()) ?? '').toBe(true)
    }
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('button', { name: 'Clear' }).click()
  })

test('signing in, before anybody is', async ({ app, browser }) => {
  const context = await browser.newContext({ baseURL: app.url })
  const page = await context.newPage()
  await page.goto('/students')
  await expect(page).toHaveURL(/sign-in\?next=\/students/)
  await audit(page)
  await page.getByLabel('E-mail').fill('nobody@harbour.example')
  await page.getByLabel('Password', { exact: true }).fill('guess')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('The address or the password is wrong')
  await context.close()
})

test('the board tells place, cents and note under the pointer and under the keys, either way round', async ({
  page,
}) => {
  await page.keyboard.press('3')
  const slider = page.getByRole('slider')
  const read = page.locator('.board .read')
  await slider.focus()
  // full-size D string, first mark: 328 / 9 mm, a pure whole tone of 204 cents, E +4
  await expect(read).toContainText('36.4 mm')
  await expect(read).toContainText('204 cents above')
  await page.keyboard.press('Home')
  await page.keyboard.press('ArrowRight')
  await expect(read).toContainText('0.5 mm')
  await page.getByRole('button', { name: 'Facing' }).click()
  const nut = await page.locator('.board svg rect').first().boundingBox()
  const box = await slider.boundingBox()
  expect((nut?.x ?? 0) - (box?.x ?? 0)).toBeGreaterThan((box?.width ?? 0) / 2)
  await slider.hover({ position: { x: (nut?.x ?? 0) - (box?.x ?? 0) - 3, y: 90 } })
  await expect(read).toContainText(/[0-2]\.\d mm/)
})
