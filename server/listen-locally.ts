// Listening under every address that "localhost" may mean.
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'

/** One port, held on each loopback address that this machine has. */
export interface Site {
  readonly port: number
  readonly servers: readonly Server[]
  close(): Promise<void>
}

/** Browsers try ::1 first; were it free, another program could answer there in our name. */
const LOOPBACKS = ['127.0.0.1', '::1'] as const
/** This machine does not speak that kind of address, so nobody can answer on it. */
const NOT_HERE = new Set(['EADDRNOTAVAIL', 'EAFNOSUPPORT'])
/** Tries to find a free port that is free on both addresses. */
const PORT_TRIES = 20

/**
 * Listens on 127.0.0.1 and ::1 at one port; port 0 means any that is free on both. Throws an Error with words when another
 * program holds either.
 */
export async function listenLocally(makeServer: () => Server, port: number): Promise<Site> {
  for (let attempt = 1; ; attempt += 1) {
    const servers: Server[] = []
    try {
      let found = port
      for (const host of LOOPBACKS) {
        const server = makeServer()
        try {
          found = await listen(server, found, host)
          servers.push(server)
        } catch (error) {
          if (!NOT_HERE.has((error as NodeJS.ErrnoException).code ?? '')) throw error
        }
      }
      return { port: found, servers, close: () => closeAll(servers) }
    } catch (error) {
      await closeAll(servers)
      const { code, address } = error as NodeJS.ErrnoException & { address?: string }
      if (code !== 'EADDRINUSE') throw error
      if (port === 0 && attempt < PORT_TRIES) continue
      throw new Error(`Port ${port} is in use (${address ?? 'localhost'}). Stop the other program, or set GREEN_ROOM_PORT and GREEN_ROOM_MEETING_PORT.`, {
        cause: error,
      })
    }
  }
}

function listen(server: Server, port: number, host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, () => {
      server.off('error', reject)
      resolve((server.address() as AddressInfo).port)
    })
  })
}

async function closeAll(servers: readonly Server[]): Promise<void> {
  await Promise.all(
    servers.map(
      (server) =>
        new Promise<void>((resolve) => {
          server.close(() => resolve())
          server.closeAllConnections()
        }),
    ),
  )
}
