/** Every key, for the list that `?` shows. */
export const keys = [
  ['1 – 3', 'Today, Build, Provision'],
  ['0', 'Changes'],
  ['/', 'Search everything'],
  ['Ctrl K', 'Commands'],
  ['j  k', 'Next and previous row'],
  ['Enter', 'Open the row in the margin'],
  ['n', 'New draft here'],
  ['e', "Go to the draft's first field"],
  ['Shift Enter', 'Carry out a checked draft'],
  ['.', 'Fold or unfold the margin'],
  ['Esc', 'Leave a field, close what is open'],
  ['?', 'This list'],
] as const
