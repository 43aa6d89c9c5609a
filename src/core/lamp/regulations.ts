/** Where the lamp must light when the car's own figure is not known, as a share of placard pressure. */
export const regulations = {
  US: {
    /** 25 % below the cold placard pressure: 49 CFR 571.138 S4.2, from memory. */
    lowShareOfPlacard: 0.75,
  },
  UN: {
    /** 20 % below the warm running pressure; taken of placard here: UN Regulation 141 section 5.2, from memory. */
    lowShareOfPlacard: 0.8,
  },
} as const;
