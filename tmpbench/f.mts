import { readPlan, sceneOf, placesOn, fieldsBetween, usualThen, spotField, plotsOf } from '@border/core'
import { filesOf } from '../demo/src/files.ts'
import { netmakersYard } from '../demo/src/gardens/netmakersYard.ts'
const plan = readPlan(filesOf(netmakersYard).plan) as any
const features = plan.value.features.map((f:any,i:number)=>({...f,id:String(i)}))
const scene = sceneOf(plan.value.garden, features)
const on='2026-09-14'
const places = placesOn(features,on)
// fell a tree
const tree = features.find((f:any)=>f.kind==='tree')
const scene2 = sceneOf(plan.value.garden, features.map((f:any)=>f===tree?{...f,to:on}:f))
const t=(name:string,f:()=>unknown)=>{const a=performance.now();f();console.log(name,(performance.now()-a).toFixed(0))}
const s=scene2, then=usualThen(s.obstructions,on)
console.log(then,'obstructions',s.obstructions.length,'places',places.length, plotsOf(places).map((p:any)=>[p.beds.length,p.raster.count,p.raster.rows,p.raster.columns,p.raster.cellM]))
for(let k=0;k<4;k++){
 t('whole',()=>fieldsBetween(s,places,then,on))
 t('spots',()=>spotField(s,places,on))
 t('per place',()=>places.map((p:any)=>fieldsBetween(s,[p],then,on)))
 for(const p of places) t('  '+p.name,()=>fieldsBetween(s,[p],then,on))
 const beds=places.filter((p:any)=>p.kind==='bed')
}
