/** Puts a measured value in place of the computed one; null takes it out. */
export type OnMeasured = (reading: string, value: number | null) => void;
