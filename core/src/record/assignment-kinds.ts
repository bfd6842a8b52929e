/** What somebody is sent out to do, at spots or with a delivery. */
export const assignmentKinds = ['test_holes', 'planting', 'watering', 'looks', 'remedies', 'delivery'] as const;
export type AssignmentKind = (typeof assignmentKinds)[number];

export const assignmentNames: Readonly<Record<AssignmentKind, string>> = {
  test_holes: 'test holes',
  planting: 'planting',
  watering: 'watering',
  looks: 'looks',
  remedies: 'remedies',
  delivery: 'delivery',
};
