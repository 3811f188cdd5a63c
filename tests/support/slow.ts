jest.setTimeout(90_000)
