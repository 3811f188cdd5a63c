jest.setTimeout(90_000)
// A browser on a shared machine can be starved for as long as any wait lasts. What fails is tried once more,
// and the first failure is printed, so that a test that fails now and then is still seen.
jest.retryTimes(1, { logErrorsBeforeRetry: true })
