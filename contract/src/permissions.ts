import {
  ofWatering,
  recordKinds,
  recordTable,
  type Recorders,
  type RecordFacts,
  type RecordKind,
  type RemedyCode,
} from '@sombra/core';
import { roles, type Role } from './session';

const everyone = roles;
const field: readonly Role[] = ['coordinator', 'crew_lead', 'inspector'];
const leads: readonly Role[] = ['coordinator', 'crew_lead'];
const coordinator: readonly Role[] = ['coordinator'];
/** The administrator may do everything, and is named nowhere. */
const office: readonly Role[] = [];

interface Permission {
  /** Goes on after *may*. */
  readonly words: string;
  readonly roles: readonly Role[];
}

const recorders: Readonly<Record<Recorders, readonly Role[]>> = {
  field,
  leads,
  coordinator,
  everyone_in_the_field: [...field, 'waterer'],
};

const recordActs = Object.fromEntries(
  recordKinds.map((kind) => [
    `record_${kind}`,
    { words: recordTable[kind].act, roles: recorders[recordTable[kind].by] },
  ]),
) as Readonly<Record<`record_${RecordKind}`, Permission>>;

/** Who may do what: the one place that says so. The server asks it at every door, the pages before they offer an act. */
export const permissions = {
  see: { words: 'see spots, trees, plans and lists, and take them as files', roles: everyone },
  keep_own: { words: 'change one’s own name, password and units, and keep views', roles: everyone },
  record: { words: 'record what was seen or done in the field', roles: [...field, 'waterer'] },
  ...recordActs,
  answer_clock: { words: 'say when a record was made whose device did not know', roles: coordinator },
  add_spot: { words: 'add a spot', roles: leads },
  withdraw_spots: { words: 'withdraw spots and bring them back', roles: coordinator },
  add_photo: { words: 'add a photo of a spot', roles: [...field, 'waterer'] },
  attach_clearance: { words: 'attach a lawful clearance', roles: coordinator },
  record_permit: { words: 'record a road permit', roles: coordinator },
  ask_owner: { words: 'ask an owner for consent, or take the link back', roles: coordinator },
  raise_ticket: { words: 'raise a locate ticket, remind a utility', roles: leads },
  withdraw_ticket: { words: 'withdraw a ticket', roles: coordinator },
  assign: { words: 'send people out to spots and deliveries', roles: leads },
  settle_aside: { words: 'settle what arrived sealed and was refused', roles: coordinator },
  import_file: { words: 'import a file', roles: coordinator },
  make_list: { words: "make, cancel and accept a season's list", roles: coordinator },
  change_species: { words: 'change the species library', roles: coordinator },
  read_offers: { words: 'read availability lists of nurseries', roles: coordinator },
  record_weather: { words: 'read weather files and rain gauges', roles: leads },
  change_devices: { words: 'change watering devices, measure them, and set drip zones', roles: leads },
  answer_residents: { words: 'make links for residents, and see to what they tell', roles: leads },
  give_care: { words: 'give trees to keepers, and answer them', roles: leads },
  plan_rounds: { words: 'plan watering rounds, trucks and fill points', roles: leads },
  plan_day: { words: 'plan a planting day, its link and its waiver', roles: coordinator },
  run_day: { words: 'run a planting day: people, teams, tools, what happens', roles: leads },
  receive_stock: { words: 'receive a delivery', roles: leads },
  water_held: { words: 'record the watering of held stock', roles: [...leads, 'waterer'] },
  count_store: { words: 'count the store', roles: leads },
  change_practice: { words: 'change a practice', roles: coordinator },
  adopt_practice: { words: 'adopt a practice', roles: coordinator },
  change_rules: { words: 'change the rules of the programme', roles: office },
  change_base_map: { words: 'change the base map', roles: office },
  change_programme: { words: 'change the programme', roles: office },
  manage_people: { words: 'add people, give roles, disable, end sessions', roles: office },
} as const satisfies Readonly<Record<string, Permission>>;

export type Act = keyof typeof permissions;
export const acts = Object.keys(permissions) as readonly Act[];

export const may = (role: Role, act: Act): boolean =>
  role === 'administrator' || (permissions[act].roles as readonly Role[]).includes(role);

/** The act of marking a remedy as done: those who water may say so of water alone. */
export const actOfRemedy = (remedy: RemedyCode): Act =>
  ofWatering.includes(remedy) ? 'record_watering' : 'record_remedy';

/** The act of recording these facts, or of taking them back. */
export const actOfRecord = (record: { readonly kind: RecordKind; readonly facts: RecordFacts[RecordKind] }): Act =>
  record.kind === 'remedy' ? actOfRemedy((record.facts as RecordFacts['remedy']).remedy) : `record_${record.kind}`;
