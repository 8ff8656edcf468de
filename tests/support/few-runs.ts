import fc from 'fast-check'
import './same-cases'

// Against each of thousands of changes, a property is asked a few times; the cases beside it are what must notice.
fc.configureGlobal({ ...fc.readConfigureGlobal(), numRuns: 15 })
