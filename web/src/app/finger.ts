/** Whether this device is worked by fingers: it has a camera at hand, and a keypad that comes up over the page. */
export const byFinger = (): boolean => matchMedia('(pointer: coarse)').matches
