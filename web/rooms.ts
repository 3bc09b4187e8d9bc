/** The rooms that exist, in the order of the rail; the number keys lead to them. */
export const ROOMS = [
  { name: 'today', title: 'Today', path: '/' },
  { name: 'students', title: 'Students', path: '/students' },
  { name: 'tapes', title: 'Tapes', path: '/tapes' },
  { name: 'setup', title: 'Setup', path: '/setup' },
  { name: 'check', title: 'Check', path: '/check' },
  { name: 'patterns', title: 'Patterns', path: '/patterns' },
  { name: 'instruments', title: 'Instruments', path: '/instruments' },
  { name: 'studio', title: 'Studio', path: '/studio' },
] as const
