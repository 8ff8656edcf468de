import fc from 'fast-check'
import { TIMES } from './times'

// The same cases in every run: what nobody has changed does not fail by chance. Who asks for more gets others, too.
if (TIMES === 1) fc.configureGlobal({ seed: 20261201 })
