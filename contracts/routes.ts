/** Every request the server answers: method and path under {@link API_BASE}. Free of Zod, so the page can carry it. */
export const ROUTES = {
  'health.read': ['GET', '/health'],
  'openapi.read': ['GET', '/openapi.json'],
  'door.read': ['GET', '/door'],
  'session.open': ['POST', '/session'],
  'session.read': ['GET', '/session'],
  'session.close': ['DELETE', '/session'],
  'students.list': ['GET', '/students'],
  'students.lessons': ['GET', '/lessons'],
  'students.create': ['POST', '/students'],
  'students.read': ['GET', '/students/:studentId'],
  'students.update': ['PATCH', '/students/:studentId'],
  'students.remove': ['DELETE', '/students/:studentId'],
  'students.restore': ['POST', '/students/:studentId/restore'],
  'students.lend': ['POST', '/students/:studentId/loans'],
  'checks.list': ['GET', '/students/:studentId/checks'],
  'checks.create': ['POST', '/students/:studentId/checks'],
  'checks.remove': ['DELETE', '/checks/:checkId'],
  'checks.restore': ['POST', '/checks/:checkId/restore'],
  'hands.list': ['GET', '/students/:studentId/hands'],
  'hands.create': ['POST', '/students/:studentId/hands'],
  'hands.remove': ['DELETE', '/hands/:handId'],
  'hands.restore': ['POST', '/hands/:handId/restore'],
  'mastery.list': ['GET', '/students/:studentId/mastery'],
  'mastery.mark': ['POST', '/students/:studentId/mastery'],
  'instruments.list': ['GET', '/instruments'],
  'instruments.labels': ['GET', '/instrument-labels'],
  'instruments.create': ['POST', '/instruments'],
  'instruments.import': ['POST', '/instruments/import'],
  'instruments.read': ['GET', '/instruments/:instrumentId'],
  'instruments.update': ['PATCH', '/instruments/:instrumentId'],
  'instruments.remove': ['DELETE', '/instruments/:instrumentId'],
  'instruments.restore': ['POST', '/instruments/:instrumentId/restore'],
  'measurements.list': ['GET', '/instruments/:instrumentId/measurements'],
  'measurements.create': ['POST', '/instruments/:instrumentId/measurements'],
  'tapeSets.list': ['GET', '/instruments/:instrumentId/tape-sets'],
  'tapeSets.create': ['POST', '/instruments/:instrumentId/tape-sets'],
  'tapeEvents.list': ['GET', '/instruments/:instrumentId/tape-events'],
  'tapeEvents.create': ['POST', '/instruments/:instrumentId/tape-events'],
  'tapeEvents.remove': ['DELETE', '/tape-events/:eventId'],
  'tapeEvents.restore': ['POST', '/tape-events/:eventId/restore'],
  'ringFinds.list': ['GET', '/instruments/:instrumentId/ring-finds'],
  'ringFinds.create': ['POST', '/instruments/:instrumentId/ring-finds'],
  'ringFinds.update': ['PATCH', '/ring-finds/:findId'],
  'ringFinds.remove': ['DELETE', '/ring-finds/:findId'],
  'ringFinds.restore': ['POST', '/ring-finds/:findId/restore'],
  'attachments.list': ['GET', '/attachments/:record/:recordId'],
  'attachments.create': ['POST', '/attachments/:record/:recordId'],
  'attachments.read': ['GET', '/attachments/:attachmentId'],
  'attachments.remove': ['DELETE', '/attachments/:attachmentId'],
  'sessions.list': ['GET', '/sessions'],
  'sessions.end': ['DELETE', '/sessions/:sessionId'],
  'sessions.endOthers': ['DELETE', '/sessions'],
  'password.change': ['PATCH', '/password'],
} as const satisfies Record<string, readonly ['GET' | 'POST' | 'PATCH' | 'DELETE', string]>

export type RouteName = keyof typeof ROUTES

/** Where every route lives. */
export const API_BASE = '/api/v1'
/** Also without the version, for machines that only ask how the server is. */
export const UNVERSIONED_BASE = '/api'

export const CSRF_HEADER = 'x-csrf-token'
export const IDEMPOTENCY_HEADER = 'idempotency-key'
