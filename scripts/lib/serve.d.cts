declare const lib: {
  freePort: () => Promise<number>
  serve: (options: {
    db: string
    demo?: boolean
    port?: number
    quiet?: boolean
    env?: Record<string, string>
  }) => Promise<{
    url: string
    child: import('node:child_process').ChildProcess
    log: () => string
    stop: (signal?: NodeJS.Signals) => Promise<void>
  }>
}
export = lib
