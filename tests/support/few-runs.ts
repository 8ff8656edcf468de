import fc from 'fast-check'

// Against each of thousands of changes, a property is asked a few times; the cases beside it are what must notice.
fc.configureGlobal({ numRuns: 15 })
