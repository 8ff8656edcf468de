import { buildApp } from './build-app'
import { runCommand } from './run-command'

/** npm run build: the application, when its sources have changed. The commands were built on the way here. */
await runCommand(buildApp)
