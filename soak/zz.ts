import { walkTrials } from './walkTrials'
console.log(JSON.stringify(await walkTrials(5), null, 1))
