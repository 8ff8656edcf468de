import { createContext } from 'react'

/** What a request is called in the server's log; known while the server draws the page, and only there. */
export const RequestNumber = createContext<string | null>(null)
