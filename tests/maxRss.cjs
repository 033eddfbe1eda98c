// Loaded into a command by its tests: says at its end how much memory it took, in kB.
process.on('exit', () => process.stderr.write(`maxRSS ${process.resourceUsage().maxRSS}\n`));
