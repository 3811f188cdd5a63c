import { DEMO_HOUSES } from '../core/examples/index'
import { Planner, Ledger, remediesFor } from '../core/index'
import { observe } from './support/house'
for (const d of DEMO_HOUSES.slice(0, 2)) {
  const house = new Ledger(observe(d.file() as never)).house
  const p = new Planner(house, {})
  const plan = p.plan()
  for (const { finding, others } of plan.clash) {
    console.log(finding.rule.id, '@', finding.subject.id, '|', finding.severity, '|', others.map(o => o.remedy + ': ' + o.why).join(' ; '))
    for (const { remedy, advice } of remediesFor(finding, p.before.site)) console.log('     ', remedy.id, advice.verdict, advice.why.text, advice.missing.map(m => m.subject + '.' + m.field).join(','))
  }
}
