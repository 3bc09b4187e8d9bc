// `npm run secrets:rotate`: another secret for sessions and second factors, from the next start on. Done twice, whoever signed in
// before the first time signs in again, and a second factor that was not used between is set up anew.
import { dataPath, openDataDirectory, rotateSessionSecret } from './database/data-directory'

rotateSessionSecret(openDataDirectory(dataPath()))
console.log('There is a new secret. Start Jadefell anew: it takes it then, and nobody is signed out.')
console.log(
  'Several servers get theirs from you: SESSION_SECRET the new one, SESSION_SECRET_BEFORE the one of now.',
)
