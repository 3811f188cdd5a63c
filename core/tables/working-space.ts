/** Working space at equipment up to 150 V to ground, inches. 110.26(A), 404.8(A). */
export const DEPTH_IN = 36
export const WIDTH_IN = 30
export const HEIGHT_IN = 78
export const HANDLE_IN = 79
/** In existing dwellings, service equipment and panels up to this rating may have less height. 110.26(A)(3). */
export const LESS_HEIGHT_AMPS = 200
