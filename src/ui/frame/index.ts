export { Live } from './Live'
export { Margin, Page, Title } from './Page'
export { SubSections } from './SubSections'
export { WorkLine } from './WorkLine'
