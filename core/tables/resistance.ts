import type { Size, TableMetal } from './ampacity'

/**
 * Ω per 1000 ft at 75 °C, direct current. Chapter 9 table 8; aluminum serves for copper-clad too,
 * a little pessimistic.
 */
const OHMS: Record<TableMetal, Partial<Record<Size, number>>> = {
  copper: {
    '14': 3.07,
    '12': 1.93,
    '10': 1.21,
    '8': 0.764,
    '6': 0.491,
    '4': 0.308,
    '3': 0.245,
    '2': 0.194,
    '1': 0.154,
    '1/0': 0.122,
    '2/0': 0.0967,
    '3/0': 0.0766,
    '4/0': 0.0608,
    '250': 0.0515,
    '300': 0.0429,
    '350': 0.0367,
    '400': 0.0321,
    '500': 0.0258,
    '600': 0.0214,
    '700': 0.0184,
    '750': 0.0171,
  },
  aluminum: {
    '12': 3.18,
    '10': 2.0,
    '8': 1.26,
    '6': 0.808,
    '4': 0.508,
    '3': 0.403,
    '2': 0.319,
    '1': 0.253,
    '1/0': 0.201,
    '2/0': 0.159,
    '3/0': 0.126,
    '4/0': 0.1,
    '250': 0.0847,
    '300': 0.0707,
    '350': 0.0605,
    '400': 0.0529,
    '500': 0.0424,
    '600': 0.0353,
    '700': 0.0303,
    '750': 0.0282,
  },
}
const ALPHA: Record<TableMetal, number> = { copper: 0.00323, aluminum: 0.0033 }

/** Ω of so many feet of one conductor at a temperature; undefined where the table has none. */
export function resistance(
  size: Size,
  metal: TableMetal,
  feet: number,
  celsius = 75,
): number | undefined {
  const per = OHMS[metal][size]
  return per === undefined ? undefined : (per * (1 + ALPHA[metal] * (celsius - 75)) * feet) / 1000
}
