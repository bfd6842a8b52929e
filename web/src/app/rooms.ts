import type { Room } from './ui/rooms';

/** The rooms of the house, stages in work order. A new stage is its folder and its room here. */
export const rooms: readonly Room[] = [
  {
    stage: 'ground',
    empty: 'No spot waits for measuring.',
    bench: () => import('./ground/ground-stage').then((m) => m.GroundStage),
    pages: [
      {
        path: '/tickets',
        name: 'Locate tickets',
        key: 'k',
        words: 'utilities digging cover',
        load: () => import('./ground/tickets-page').then((m) => m.TicketsPage),
      },
      {
        path: '/rules',
        timeless: true,
        name: 'Rules',
        key: 'r',
        words: 'distances limits weights',
        load: () => import('./ground/rules-page').then((m) => m.RulesPage),
      },
    ],
  },
  {
    stage: 'match',
    empty: 'No place waits for its species.',
    bench: () => import('./match/match-bench').then((m) => m.MatchBench),
    pages: [
      {
        path: '/lists',
        name: "Season's lists",
        key: 'l',
        words: 'order budget',
        load: () => import('./match/lists-page').then((m) => m.ListsPage),
        behind: [
          {
            path: ':listId',
            title: "Season's list · Sombra",
            loadComponent: () => import('./match/list-page').then((m) => m.ListPage),
          },
        ],
      },
      {
        path: '/species',
        timeless: true,
        name: 'Species library',
        key: 's',
        load: () => import('./match/species-page').then((m) => m.SpeciesPage),
      },
      {
        path: '/nurseries',
        timeless: true,
        name: 'Nurseries',
        key: 'n',
        words: 'offers availability',
        load: () => import('./match/nurseries-page').then((m) => m.NurseriesPage),
      },
    ],
  },
  {
    stage: 'stock',
    empty: 'No tree waits for its measures.',
    note: () => import('./stock/due-note').then((m) => m.DueNote),
    bench: () => import('./pit/pit-bench').then((m) => m.PitBench),
    pages: [
      {
        path: '/deliveries',
        name: 'Deliveries',
        key: 'v',
        words: 'receive lots claims',
        load: () => import('./stock/deliveries-page').then((m) => m.DeliveriesPage),
        behind: [
          {
            path: ':deliveryId',
            title: 'Delivery · Sombra',
            loadComponent: () => import('./stock/delivery-page').then((m) => m.DeliveryPage),
          },
          {
            path: ':deliveryId/lots/:lotId/tree',
            title: 'A tree as received · Sombra',
            loadComponent: () => import('./stock/receive-tree-page').then((m) => m.ReceiveTreePage),
          },
        ],
      },
    ],
  },
  {
    stage: 'pit',
    empty: 'Every measured tree has a pit plan.',
    bench: () => import('./pit/pit-bench').then((m) => m.PitBench),
    pages: [
      {
        path: '/practices',
        timeless: true,
        name: 'Practices',
        key: 'p',
        words: 'schools adopt compare',
        load: () => import('./practice/practices-page').then((m) => m.PracticesPage),
      },
      {
        path: '/materials',
        name: 'Materials and hours',
        key: 'm',
        words: 'store mulch compost',
        load: () => import('./pit/materials-page').then((m) => m.MaterialsPage),
      },
    ],
  },
  {
    stage: 'day',
    empty: 'No tree is ready to plant.',
    note: () => import('./day/coming-days-note').then((m) => m.ComingDaysNote),
    bench: () => import('./day/day-bench').then((m) => m.DayBench),
    pages: [
      {
        path: '/days',
        name: 'Planting days',
        key: 'y',
        words: 'teams volunteers registration readiness weather tools',
        load: () => import('./day/days-page').then((m) => m.DaysPage),
        behind: [
          {
            path: ':dayId',
            title: 'Planting day · Sombra',
            loadComponent: () => import('./day/day-page').then((m) => m.DayPage),
          },
        ],
      },
    ],
  },
  {
    stage: 'water',
    home: { name: 'Dry by when', load: () => import('./water/water-page').then((m) => m.WaterPage) },
    pages: [
      {
        path: '/rounds',
        name: 'Rounds',
        key: 'u',
        words: 'watering trucks tanks hydrants fill points',
        load: () => import('./water/rounds-page').then((m) => m.RoundsPage),
        behind: [
          {
            path: ':roundId',
            title: 'Watering round · Sombra',
            loadComponent: () => import('./water/round-page').then((m) => m.RoundPage),
          },
        ],
      },
      {
        path: '/keepers',
        name: 'Keepers',
        key: 'a',
        words: 'adopters owners residents reminders deputy complaints help silent',
        act: 'give_care',
        load: () => import('./care/keepers-page').then((m) => m.KeepersPage),
      },
      {
        path: '/devices',
        timeless: true,
        name: 'Devices',
        key: 'i',
        words: 'bags rings jars hose drip calibrate flow seep',
        load: () => import('./water/devices-page').then((m) => m.DevicesPage),
      },
      {
        path: '/zones',
        timeless: true,
        name: 'Drip zones',
        key: 'z',
        words: 'valves controller emitters turf irrigation',
        load: () => import('./water/zones-page').then((m) => m.ZonesPage),
      },
      {
        path: '/weather',
        name: 'Weather',
        key: 'h',
        words: 'rain gauge csv stations dry spell heat wave frost demand',
        load: () => import('./water/weather-page').then((m) => m.WeatherPage),
      },
      {
        path: '/water-rules',
        name: 'Rules compared',
        key: 'c',
        words: 'how often much litres schools stress drowning',
        load: () => import('./water/rules-compare-page').then((m) => m.RulesComparePage),
      },
    ],
  },
  {
    stage: 'inspect',
    empty: 'No tree is planted yet.',
    bench: () => import('./inspect/inspect-bench').then((m) => m.InspectBench),
    pages: [
      {
        path: '/looks',
        name: 'Rounds of looks',
        key: 'x',
        words: 'inspection due inspectors afternoon worth storm doubt',
        load: () => import('./inspect/looks-page').then((m) => m.LooksPage),
      },
      {
        path: '/remedies',
        name: 'Remedies',
        key: 'f',
        words: 'work crew sheet tools batches arborist stakes mulch',
        load: () => import('./inspect/work-page').then((m) => m.WorkPage),
      },
      {
        path: '/judgement',
        timeless: true,
        name: 'How looks are judged',
        key: 'j',
        words: 'worked cases verdict diagnosis causes signs remedy who',
        load: () => import('./inspect/judgement-page').then((m) => m.JudgementPage),
      },
    ],
  },
  {
    stage: null,
    name: 'Programme',
    pages: [
      {
        path: '/help',
        timeless: true,
        name: 'Help',
        key: 'w',
        words: 'first steps glossary words manual guide terms',
        load: () => import('./help/help-page').then((m) => m.HelpPage),
      },
      {
        path: '/programme',
        timeless: true,
        name: 'Programme',
        key: 'o',
        words: 'settings time zone holidays windows',
        load: () => import('./programme/programme-page').then((m) => m.ProgrammePage),
      },
      {
        path: '/people',
        timeless: true,
        name: 'People',
        key: 'e',
        words: 'roles passwords rights',
        act: 'manage_people',
        load: () => import('./people/people-page').then((m) => m.PeoplePage),
      },
      {
        path: '/base-map',
        timeless: true,
        name: 'Base map',
        key: 'b',
        words: 'layers geojson pmtiles',
        act: 'change_base_map',
        load: () => import('./map/base-map-page').then((m) => m.BaseMapPage),
      },
    ],
  },
];
