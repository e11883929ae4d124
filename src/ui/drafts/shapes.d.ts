/** Functions by kind, `-` as `_`; `shapeTroubles` reaches them by name. */
export {}
