/**
 * Keys that stand for the switches of the foot controller: the top row of letters, as digits choose
 * sounds everywhere. A foot switch that types letters fits.
 */
export const PAD_KEYS = ['Q', 'W', 'E', 'R', 'T', 'Y', 'U', 'I', 'O'];
