import { runCalc } from './calc';

const USAGE = 'usage: able calc FILE.json   (- reads standard input)\n';

const [command, ...args] = process.argv.slice(2);
if (command === 'calc' && args.length === 1) {
  process.exitCode = runCalc(args[0] as string);
} else {
  process.stderr.write(USAGE);
  process.exitCode = 2;
}
