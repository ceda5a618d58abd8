/** What a section or group is called until somebody says what it is. */
export const GIVEN_TITLES = {
  first: 'First section',
  section: 'New section',
  group: 'New group',
} as const
