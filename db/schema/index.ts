// The one place drizzle-kit reads; code imports the tables from their own files.
export * from './people'
export * from './squads'
export * from './sessions'
export * from './devices'
export * from './log'
export * from './verdicts'
export * from './measurements'
export * from './care'
