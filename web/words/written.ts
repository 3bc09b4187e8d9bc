import type { FamilyId, MusicXmlFault, WrittenFault } from '#core'
import { count } from './numbers'
import { familyName } from './trade'

/** What is wrong with a written line, and what to write instead. */
export function writtenFaultWords(fault: WrittenFault, family: FamilyId): string {
  switch (fault.code) {
    case 'not_a_note':
      return fault.text === ''
        ? 'A note is missing before the slash.'
        : `“${fault.text}” is no note: write letters from A to G, as in D4 E F# Bb.`
    case 'not_a_finger':
      return `“${fault.text}” is no finger: write one of /0 to /4, or /T for the thumb.`
    case 'too_long':
      return `An exercise has ${count(fault.most, 'note')} at most: end it here.`
    case 'too_low':
      return `${fault.note} is below the lowest string of a ${familyName(family)}: write it higher.`
    case 'too_high':
      return `${fault.note} is above the board of a ${familyName(family)}: write it lower.`
    case 'no_finger':
      return fault.isAsked
        ? `No hand on a ${familyName(family)} plays ${fault.note} with this finger here: choose another, or leave the finger out.`
        : `No hand on a ${familyName(family)} is taught ${fault.note}: write it by another name.`
  }
}

/** What is wrong with a file of notes, and what to do. */
export function musicXmlFaultWords(fault: MusicXmlFault): string {
  switch (fault.code) {
    case 'not_xml':
      return `This is no MusicXML${fault.line === undefined ? '' : `, from line ${fault.line} on`}: save it as uncompressed MusicXML (.musicxml or .xml).`
    case 'compressed':
      return 'This file is compressed: save it as uncompressed MusicXML (.musicxml or .xml).'
    case 'not_partwise':
      return 'This is no score by parts: save it as MusicXML, “score-partwise”.'
    case 'no_notes':
      return 'There are no notes in the first part of this file.'
    case 'microtone':
      return `Bar ${fault.measure} has a quarter tone or an unreadable note: change it and bring the file in again.`
    case 'too_large':
      return 'This file is longer than two million letters: save the exercise by itself.'
  }
}
