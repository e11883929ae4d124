/** A section in the folded work line. */
export interface SectionItem {
  readonly href: string
  readonly words: string
  readonly isOn: boolean
}
