import jStat from 'jstat'

/**
 * The value below which Student's t with so many degrees of freedom stays with this probability; NaN below one degree.
 * Source: Student, The probable error of a mean, Biometrika 6 (1908) 1; computed by jStat, checked against printed tables.
 */
export function studentsT(probability: number, degreesOfFreedom: number): number {
  return degreesOfFreedom >= 1 ? jStat.studentt.inv(probability, degreesOfFreedom) : NaN
}

/** The value below which chi-square with so many degrees of freedom stays with this probability. Source: K. Pearson, Phil. Mag. 50 (1900) 157; computed by jStat. */
export function chiSquare(probability: number, degreesOfFreedom: number): number {
  return jStat.chisquare.inv(probability, degreesOfFreedom)
}
