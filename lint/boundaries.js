import { layers } from './layers.js'
import { pure } from './pure.js'

/** What holds the layers, as the linter's plugin (`.oxlintrc.json`). */
export default { meta: { name: 'dromos' }, rules: { layers, pure } }
