const DOCTOR = 'a doctor or a physiotherapist who treats players'

/** Shown wherever pain is told. This tool measures; it does not treat. */
export const PAIN_CAUTION = `Stop and rest. Ask ${DOCTOR} before playing goes on: this tool measures, it does not treat.`
