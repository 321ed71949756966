import { woodyForms } from '../../plants/index.ts'
import type { Anchor, CareRule, WindowSpec } from '../rule.ts'

/** Of a liquid feed a usual label asks so many litres to a litre of water; so watered, a pot is given so much of what it holds. */
export const liquidFeed = { perLitre: 0.005, ofMix: 0.1 } as const

const beforeCover: WindowSpec = {
  season: 'spring',
  earliest: { at: 'soil above', c: 6 },
  bestFrom: { at: 'earliest' },
  bestTo: { at: 'earliest', days: 28 },
  latest: { at: 'earliest', days: 56 },
  because: {
    earliest: 'mulch laid on cold soil keeps it cold',
    bestFrom: 'the soil is moist and warming',
    bestTo: 'shoots are short enough to work between',
    latest: 'growth covers the ground',
  },
}

/** Some days from where frost may come, and not before nights turn cold: one summer frost in ten years bursts no pot. */
const coldEnough = (c: number, days: number): Anchor => ({
  latestOf: [
    { at: 'first frost', share: 10, days },
    { at: 'nights below', c, or: { at: 'first frost', share: 10, days } },
  ],
})

/** Of what moves the reaction of a soil. */
export const DUST = 'Dust: mask, gloves and eye protection; by the label’s rate.'
export const LIME = 'Not together with manure, and not near plants that hate lime.'

/** Limestone works through a winter's rain. */
export const limeWindow: WindowSpec = {
  season: 'autumn',
  earliest: { at: 'soil below', c: 13 },
  bestFrom: { at: 'soil below', c: 11 },
  bestTo: { at: 'next midwinter' },
  latest: { at: 'next midwinter', days: 35 },
  because: {
    earliest: 'growth is over and the ground is open',
    bestFrom: 'a winter’s rain is ahead to take it down',
    bestTo: 'months are left before growth',
    latest: 'it would lie on shoots',
  },
}

/** Soil life turns sulphur to acid only in warmth. */
export const sulphurWindow: WindowSpec = {
  season: 'spring',
  earliest: { at: 'soil above', c: 8 },
  bestFrom: { at: 'soil above', c: 10 },
  bestTo: { at: 'best from', days: 35 },
  latest: { at: 'best from', days: 70 },
  because: {
    earliest: 'in colder soil nothing turns it to acid',
    bestFrom: 'soil life is at work',
    bestTo: 'the warm months are ahead',
    latest: 'growth covers the ground',
  },
}

/** Rules of whole beds and pots: mulch, weeding, edges, watering in. */
export const places: readonly CareRule[] = [
  {
    id: 'mulch-beds',
    operation: 'mulch',
    does: 'Mulch 5 cm deep, off every crown; none over grass crowns',
    applies: { wholePlace: true, place: 'bed' },
    windows: [beforeCover],
    forbids: ['frozen soil', 'dry soil'],
    labour: { setUp: 15, perM2: 6 },
    materials: [{ name: 'garden compost or bark', unit: 'l', perM2: 50 }],
    bySchool: [
      {
        id: 'mulch-order',
        steps: {
          after: 'Spring planting and dividing come first; mulch when they are done.',
          before: 'Mulch before the spring planting, which goes through it.',
        },
      },
    ],
    tools: ['barrow', 'shovel', 'rake'],
    cautions: ['Dust from dry mulch: mask and gloves.'],
    why: 'Moist soil stays moist, weeds stay under, and the soil is fed.',
    missed: 'Autumn, while the soil is still warm and moist.',
    yearly: true,
  },
  {
    id: 'weed-beds',
    operation: 'weed',
    does: 'Weed, and lift unwelcome seedlings',
    applies: { wholePlace: true, place: 'bed' },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'soil above', c: 7 },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'soil below', c: 9, or: { at: 'next midwinter', days: -14 } },
        latest: { at: 'soil below', c: 7, or: { at: 'next midwinter' } },
        because: {
          earliest: 'weeds germinate from then',
          bestFrom: 'seedlings are small',
          bestTo: 'few germinate after',
          latest: 'little grows after',
        },
      },
    ],
    everyDays: 35,
    forbids: ['sodden soil'],
    labour: { setUp: 5, perM2: 1.5 },
    tools: ['hand fork', 'hoe', 'bucket'],
    why: 'A weed taken small has not seeded.',
    missed: 'Take it at the next round, before it seeds.',
    yearly: true,
  },
  {
    id: 'pre-emergent',
    operation: 'weed',
    does: 'Stop weed seed with a pre-emergent, by its label only',
    applies: { wholePlace: true, place: 'bed' },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'soil above', c: 7 },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'soil above', c: 10 },
        latest: { at: 'soil above', c: 13 },
        because: {
          earliest: 'weeds germinate soon after',
          bestFrom: 'nothing has germinated yet',
          bestTo: 'the first weeds germinate',
          latest: 'most have germinated',
        },
      },
    ],
    forbids: ['rain', 'wind', 'frozen soil'],
    skill: 'spraying',
    labour: { setUp: 30, perM2: 1 },
    tools: ['spreader', 'what the label asks for'],
    cautions: [
      'Only by its label and local law, and by someone licensed where that is required.',
      'Never where bulbs are coming, seed is sown or self-sowers are welcome.',
    ],
    why: 'It stops seed, wanted and unwanted alike.',
    missed: 'Weed by hand; it does nothing to what has germinated.',
    yearly: true,
    off: true,
  },
  ...(['organic', 'mineral'] as const).map((choice): CareRule => ({
    id: `feed-hungry-${choice}`,
    operation: 'feed',
    does:
      choice === 'organic'
        ? 'Feed with a pelleted organic feed, scratched in and watered'
        : 'Feed with a balanced slow-release feed and water in',
    school: { id: 'feeds', choice },
    applies: {
      traits: {
        feed: ['heavy'],
        lifeForm: ['perennial', 'bulb', 'deciduous shrub', 'evergreen shrub', 'climber', 'tender perennial'],
      },
      place: 'bed',
    },
    windows: [
      {
        season: 'spring',
        earliest: {
          latestOf: [
            { at: 'soil above', c: 8 },
            { at: 'growth shows', days: -7 },
          ],
        },
        bestFrom: { at: 'earliest', days: 7 },
        bestTo: { at: 'earliest', days: 35 },
        latest: {
          earliestOf: [
            { at: 'earliest', days: 75 },
            { at: 'first frost', share: 50, days: -80, or: { at: 'midsummer' } },
          ],
        },
        because: {
          earliest:
            choice === 'organic'
              ? 'in colder soil nothing breaks it down'
              : 'in colder soil ammonium feeds hardly work',
          bestFrom: 'roots are taking up',
          bestTo: 'growth is being made',
          latest: 'later feeding pushes soft growth into the cold',
        },
      },
    ],
    forbids: ['dry soil', 'frozen soil'],
    labour: { setUp: 5, perPlant: 1.5 },
    materials: [
      choice === 'organic'
        ? { name: 'pelleted organic feed', unit: 'kg', perPlant: 0.1 }
        : { name: 'balanced slow-release feed, 120 days', unit: 'kg', perPlant: 0.06 },
    ],
    tools: ['measure', 'hand fork', 'watering can'],
    cautions: ['Gloves; by the label’s rate.'],
    ...(choice === 'mineral' && {
      steps: [
        'Where it starves while the soil is under 8 °C, a nitrate feed: ammonium and urea wait for warmth.',
        'The day it is recorded on counts: what lasts 120 days is due again after them, or not at all.',
      ],
    }),
    why:
      choice === 'organic'
        ? 'It is a hungry plant; what soil life frees slowly feeds it through the season.'
        : 'It is a hungry plant; one feed as growth starts lasts its stated life.',
    missed: 'A liquid feed until two months before frost; nothing after.',
    yearly: true,
  })),
  {
    id: 'feed-hungry-again',
    operation: 'feed',
    does: 'Give the second half of the season’s slow-release feed',
    dueAfter: { rule: 'feed-hungry-mineral', days: 120 },
    school: { id: 'feeds', choice: 'mineral' },
    applies: {
      traits: { feed: ['heavy'], lifeForm: ['perennial', 'climber', 'tender perennial', 'evergreen shrub'] },
      place: 'bed',
    },
    windows: [
      {
        season: 'summer',
        earliest: {
          latestOf: [
            { at: 'soil above', c: 8, days: 110 },
            { at: 'growth shows', days: 103 },
          ],
        },
        bestFrom: { at: 'earliest', days: 14 },
        bestTo: { at: 'earliest', days: 28 },
        // Where the season is too short for it there is no window.
        latest: { at: 'first frost', share: 50, days: -90, or: { at: 'earliest', days: 42 } },
        because: {
          earliest: 'the feed of spring has run out by then',
          bestFrom: 'its 120 days are over',
          bestTo: 'growth is still being made',
          latest: 'what it frees later would push soft growth into the cold',
        },
      },
    ],
    forbids: ['dry soil'],
    labour: { setUp: 5, perPlant: 1.5 },
    materials: [{ name: 'balanced slow-release feed, 120 days', unit: 'kg', perPlant: 0.04 }],
    tools: ['measure', 'watering can'],
    cautions: ['Gloves; by the label’s rate.'],
    why: 'Where the season is long, the feed of spring does not last it.',
    missed: 'A liquid feed until two months before frost; nothing after.',
    yearly: true,
  },
  {
    id: 'feed-roses-after-first-flush',
    operation: 'feed',
    does: 'Feed with what is rich in potash, as the first flush ends, and water in',
    applies: { taxa: ['Rosa'], traits: { repeats: ['when deadheaded', 'by itself'] }, place: 'bed' },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom starts', days: 21 },
        bestFrom: { at: 'bloom starts', days: 28 },
        bestTo: { at: 'bloom starts', days: 45 },
        latest: {
          earliestOf: [
            { at: 'bloom starts', days: 60 },
            { at: 'first frost', share: 50, days: -75, or: { at: 'bloom starts', days: 60 } },
          ],
        },
        because: {
          earliest: 'the first flowers are spent',
          bestFrom: 'the first flush is over and cut off',
          bestTo: 'the next flush is being made',
          latest: 'later feeding keeps wood soft into the cold',
        },
      },
    ],
    forbids: ['dry soil', 'heat'],
    labour: { setUp: 5, perPlant: 1.5 },
    materials: [{ name: 'rose feed', unit: 'kg', perPlant: 0.04 }],
    tools: ['measure', 'watering can'],
    cautions: ['Gloves; by the label’s rate.'],
    why: 'A second flush costs as much as the first; potash ripens its wood.',
    missed: 'Nothing more this year once two months are left before frost.',
    yearly: true,
  },
  {
    id: 'feed-bedding',
    operation: 'feed',
    does: 'Give a liquid feed, at half strength where the bed was amended',
    school: { id: 'pushing', choice: 'push' },
    applies: { traits: { annualSeason: ['warm'], feed: ['light', 'heavy'] }, place: 'bed' },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'nights above', c: 8, days: 42, or: { at: 'midsummer', days: -30 } },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'latest', days: -14 },
        latest: { at: 'first frost', share: 50, days: -42, or: { at: 'midsummer', days: 75 } },
        because: {
          earliest: 'what was forked in is spent about then',
          bestFrom: 'they are in full growth',
          bestTo: 'they still flower on it',
          latest: 'it would push leaves into the cold',
        },
      },
    ],
    everyDays: 21,
    forbids: ['dry soil', 'heat'],
    labour: { setUp: 5, perPlant: 0.5 },
    materials: [{ name: 'liquid feed', unit: 'l', perPlant: 0.01 }],
    tools: ['watering can', 'measure'],
    cautions: ['By the label’s rate, on moist ground only.'],
    why: 'Bedding that flowers for months eats for months.',
    missed: 'Go on at the next turn; never double.',
    yearly: true,
  },
  {
    id: 'feed-citrus',
    operation: 'feed',
    does: 'Give a citrus feed with trace elements, with the watering',
    applies: { taxa: ['Citrus'] },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'nights above', c: 8, or: { at: 'midwinter', days: 45 } },
        bestFrom: { at: 'earliest', days: 7 },
        bestTo: { at: 'nights below', c: 12, days: -14, or: { at: 'midsummer', days: 75 } },
        latest: { at: 'nights below', c: 10, or: { at: 'midsummer', days: 95 } },
        because: {
          earliest: 'roots take nothing up in the cold',
          bestFrom: 'new leaves unfold',
          bestTo: 'growth hardens for the winter',
          latest: 'it comes in and rests',
        },
      },
    ],
    everyDays: 14,
    forbids: ['dry soil'],
    labour: { setUp: 3, perPlant: 2 },
    materials: [{ name: 'citrus feed', unit: 'l', perPlant: 0.02 }],
    tools: ['watering can', 'measure'],
    cautions: ['By the label’s rate, on moist mix only.'],
    steps: ['Leaves yellow between green veins want iron: in limy water use a chelate, by its label.'],
    why: 'Citrus leaves, flowers and fruit at once, and yellows without trace elements.',
    missed: 'Go on at the next turn; never double.',
    yearly: true,
  },
  {
    id: 'feed-lightly',
    operation: 'feed',
    does: 'Scatter a light general feed before mulching',
    applies: {
      traits: { feed: ['light'], lifeForm: ['deciduous shrub', 'evergreen shrub', 'climber'] },
      place: 'bed',
    },
    windows: [
      {
        season: 'spring',
        earliest: {
          latestOf: [
            { at: 'soil above', c: 7 },
            { at: 'growth shows', days: -14 },
          ],
        },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'earliest', days: 28 },
        latest: { at: 'earliest', days: 60 },
        because: {
          earliest: 'in colder soil little is taken up',
          bestFrom: 'growth is starting',
          bestTo: 'growth is being made',
          latest: 'later feeding pushes soft growth',
        },
      },
    ],
    everySeasons: 2,
    forbids: ['dry soil', 'frozen soil'],
    labour: { setUp: 5, perPlant: 1 },
    materials: [{ name: 'general feed', unit: 'kg', perPlant: 0.035 }],
    tools: ['measure'],
    cautions: ['Gloves; by the label’s rate.'],
    why: 'A little in spring keeps established shrubs in leaf and flower.',
    missed: 'It can wait a year.',
    yearly: true,
  },
  ...(['lean', 'push'] as const).map((choice): CareRule => ({
    id: `feed-pots-${choice}`,
    operation: 'feed',
    does: 'Give a liquid feed with the watering',
    applies: { wholePlace: true, place: 'container' },
    school: { id: 'pushing', choice },
    windows: [
      {
        season: 'summer',
        earliest: {
          latestOf: [
            { at: 'soil above', c: 12 },
            { at: 'last frost', share: 90, days: 28, or: { at: 'soil above', c: 12 } },
          ],
          or: { at: 'longest day' },
        },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'latest', days: -7 },
        latest: {
          at: 'first frost',
          share: 50,
          days: -42,
          or: { at: 'soil below', c: 15, or: { at: 'midsummer', days: 60 } },
        },
        because: {
          earliest: 'the feed in the mix is spent about then',
          bestFrom: 'roots fill the pot',
          bestTo: 'they still flower on it',
          latest: 'feeding later pushes soft growth into the cold',
        },
      },
    ],
    everyDays: choice === 'push' ? 7 : 14,
    byTurns: ['a balanced liquid feed', 'one rich in potash, for flowers'],
    forbids: ['dry soil'],
    labour: { setUp: 3, perM2: 4 },
    materials: [{ name: 'liquid feed', unit: 'l', perMixLitre: liquidFeed.perLitre * liquidFeed.ofMix }],
    tools: ['watering can', 'measure'],
    cautions: ['By the label’s rate, on moist mix only.'],
    why: choice === 'push' ? 'Weekly feed pushes display.' : 'Feed every other week keeps growth sturdy.',
    missed: 'Go on at the next turn; never double.',
    yearly: true,
  })),
  ...(['part', 'whole'] as const).map((choice): CareRule => ({
    id: `refresh-mix-${choice}`,
    operation: 'refresh mix',
    does: choice === 'part' ? 'Replace the top third of the mix' : 'Empty, wash and refill with fresh mix',
    applies: { wholePlace: true, place: 'container' },
    school: { id: 'pot-mix', choice },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'soil above', c: 5 },
        bestFrom: { at: 'earliest', days: 10 },
        bestTo: { at: 'last frost', share: 90, days: 7, or: { at: 'earliest', days: 42 } },
        latest: { at: 'last frost', share: 90, days: 35, or: { at: 'earliest', days: 70 } },
        because: {
          earliest: 'wet cold mix is not disturbed in winter',
          bestFrom: 'roots are about to move',
          bestTo: 'before the warm-season plants go in',
          latest: 'the pot should be growing by then',
        },
      },
    ],
    everySeasons: choice === 'part' ? 1 : 3,
    forbids: ['frozen soil', 'hard frost'],
    labour: { setUp: 15, perMixLitre: choice === 'part' ? 0.15 : 0.4 },
    materials: [{ name: 'potting mix', unit: 'l', perMixLitre: choice === 'part' ? 1 / 3 : 1 }],
    tools: ['trowel', 'sheet', 'bucket'],
    cautions: ['Dust from dry mix: mask, gloves and eye protection.', 'Wet pots are heavy: two people.'],
    why:
      choice === 'part'
        ? 'Mix slumps and is spent; a third a season keeps it open.'
        : 'After three years all of it is spent.',
    missed: 'Feed more; do it at the autumn swap.',
    yearly: true,
  })),
  {
    id: 'pot-on-woody',
    operation: 'pot on',
    does: 'Pot on one size, or root-prune and return with fresh mix',
    applies: {
      traits: { lifeForm: woodyForms },
      place: 'container',
    },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows', days: -28 },
        bestFrom: { at: 'growth shows', days: -14 },
        bestTo: { at: 'growth shows', days: 10 },
        latest: { at: 'growth shows', days: 28 },
        because: {
          earliest: 'roots are at rest in cold mix',
          bestFrom: 'roots are about to move',
          bestTo: 'roots take to the new mix at once',
          latest: 'soft growth would flag',
        },
      },
    ],
    everySeasons: 2,
    forbids: ['hard frost', 'heat'],
    labour: { setUp: 15, perPlant: 35 },
    materials: [{ name: 'potting mix', unit: 'l', perPlant: 25 }],
    tools: ['larger pot', 'old knife', 'watering can'],
    cautions: ['Heavy: two people or a sack truck.', 'Dust from dry mix: mask and gloves.'],
    why: 'Woody plants fill their pot within a year or two.',
    missed: 'Top-dress and feed; pot on next spring.',
    yearly: true,
  },
  {
    id: 'pots-for-winter',
    operation: 'upkeep',
    does: 'Set pots on feet, clear drainage holes, move thin terracotta under cover',
    applies: { wholePlace: true, place: 'container' },
    windows: [
      {
        season: 'autumn',
        earliest: coldEnough(8, -28),
        bestFrom: coldEnough(6, -14),
        bestTo: {
          latestOf: [
            { at: 'best from', days: 7 },
            { at: 'first frost', share: 50 },
          ],
        },
        latest: {
          latestOf: [
            { at: 'best from', days: 21 },
            { at: 'first frost', share: 90, days: 14 },
          ],
        },
        needs: { at: 'first frost', share: 50 },
        because: {
          earliest: 'rain and frost together burst wet pots',
          bestFrom: 'frost may come within weeks',
          bestTo: 'before frost usually comes',
          latest: 'frost comes nearly every year by then',
        },
      },
    ],
    forbids: [],
    labour: { setUp: 5, perM2: 10 },
    tools: ['pot feet', 'wire'],
    cautions: ['Wet pots are heavy: two people.'],
    why: 'Water that cannot drain freezes and bursts the pot.',
    missed: 'Do it before the next frost in the forecast.',
    yearly: true,
  },
  {
    id: 'upkeep-of-empty-beds',
    operation: 'upkeep',
    does: 'Look over edging, drip lines, stakes and paths while the bed is bare',
    applies: { wholePlace: true, place: 'bed' },
    windows: [
      {
        season: 'winter',
        earliest: { at: 'soil below', c: 8 },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'next midwinter', days: 20 },
        latest: { at: 'next midwinter', days: 45 },
        because: {
          earliest: 'growth has gone and there is room to work',
          bestFrom: 'the bed is empty and cheap to work in',
          bestTo: 'before shoots are under foot',
          latest: 'growth begins',
        },
      },
    ],
    forbids: ['frozen soil', 'sodden soil'],
    labour: { setUp: 15, perM2: 1 },
    tools: ['as found'],
    why: 'Work on what stands round a bed is cheapest while it is empty.',
    missed: 'Next winter.',
    yearly: true,
  },
  ...(['lime', 'sulphur'] as const).map((what): CareRule => ({
    id: `${what}-the-soil`,
    operation: 'soil',
    verb: what === 'lime' ? 'lime' : 'acidify',
    does:
      what === 'lime'
        ? 'Spread ground limestone by the dose of its test and rake it in'
        : 'Scratch in sulphur by the dose of its test',
    applies: { wholePlace: true, place: 'bed', ground: what === 'lime' ? 'too acid' : 'too limy' },
    windows: [what === 'lime' ? limeWindow : sulphurWindow],
    forbids: ['wind', 'frozen soil', 'sodden soil'],
    labour: { setUp: 15, perM2: 2 },
    doseTo: 'its plants',
    tools: ['measure', 'rake', 'pH test'],
    steps: [
      'Test first, in three spots: the dose is for a bed that was tested.',
      'Water in; test again before the next dose, half a year on at the soonest.',
    ],
    cautions: [DUST, ...(what === 'lime' ? [LIME] : [])],
    why: 'The reaction of a soil moves slowly: small doses, repeated, and a test between.',
    missed: 'Next year will do: nothing is lost by waiting.',
    yearly: true,
  })),
  {
    id: 'flush-pipes',
    operation: 'upkeep',
    verb: 'flush the pipes of',
    does: 'Flush drip lines, clear what is blocked, set the timer for the season',
    applies: { wholePlace: true, place: 'bed', piped: true },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'last frost', share: 50, or: { at: 'midwinter', days: 40 } },
        bestFrom: { at: 'last frost', share: 90, or: { at: 'earliest' } },
        bestTo: { at: 'best from', days: 21 },
        latest: { at: 'best from', days: 45 },
        because: {
          earliest: 'frost bursts what is filled',
          bestFrom: 'hard frost is past',
          bestTo: 'before the first dry weeks',
          latest: 'growth covers the lines and water is wanted',
        },
      },
    ],
    forbids: ['hard frost'],
    labour: { setUp: 15, perM2: 0.8 },
    tools: ['spare emitters', 'knife', 'bucket'],
    why: 'A blocked emitter is found in spring or by a dead plant in summer.',
    missed: 'At the first dry week, before it is needed.',
    yearly: true,
  },
  {
    id: 'drain-pipes',
    operation: 'upkeep',
    verb: 'drain the pipes of',
    does: 'Drain drip lines and take the timer in',
    // Where a usual winter brings hardly a frost, nothing bursts.
    applies: { wholePlace: true, place: 'bed', piped: true, winterColderThanC: -1 },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'soil below', c: 12 },
        bestFrom: { at: 'first frost', share: 10, days: -14, or: { at: 'earliest' } },
        bestTo: { at: 'first frost', share: 50, days: -7, or: { at: 'best from', days: 28 } },
        latest: { at: 'first frost', share: 90, or: { at: 'best from', days: 60 } },
        because: {
          earliest: 'plants draw little water from then',
          bestFrom: 'frost may come within weeks',
          bestTo: 'before frost usually comes',
          latest: 'frost comes nearly every year by then',
        },
      },
    ],
    forbids: [],
    labour: { setUp: 15, perM2: 0.4 },
    tools: ['spanner', 'bucket'],
    why: 'Water left in a pipe freezes and splits it.',
    missed: 'Before the first hard frost in the forecast.',
    yearly: true,
  },
  {
    id: 'turn-pots',
    operation: 'upkeep',
    verb: 'turn',
    does: 'Give each pot a quarter turn, so that it does not lean to the light',
    applies: { wholePlace: true, place: 'container', byWall: true },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'soil above', c: 10 },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'soil below', c: 12, or: { at: 'midsummer', days: 80 } },
        latest: { at: 'soil below', c: 10, or: { at: 'midsummer', days: 100 } },
        because: {
          earliest: 'growth turns to the light from then',
          bestFrom: 'shoots are soft',
          bestTo: 'growth slows',
          latest: 'little grows after',
        },
      },
    ],
    everyDays: 28,
    forbids: [],
    labour: { setUp: 1, perM2: 3 },
    tools: [],
    cautions: ['Wet pots are heavy: two people.'],
    why: 'A pot against a wall has light from one side only.',
    missed: 'At the next turn.',
    yearly: true,
  },
]
