import ts from 'typescript'; import { readFileSync } from 'node:fs'; import { execSync } from 'node:child_process';
const files = execSync("git ls-files 'src/**/*.ts' 'src/**/*.tsx' 'scripts/*.ts' 'scripts/*.mjs'").toString().trim().split('\n').filter(f => !/\.test\./.test(f));
const out=[];
for (const f of files) { const s = ts.createSourceFile(f, readFileSync(f,'utf8'), 99, true, f.endsWith('x')?4:3);
 const visit=(n,name)=>{ let nm=name; if (ts.isVariableDeclaration(n)||ts.isFunctionDeclaration(n)||ts.isMethodDeclaration(n)||ts.isPropertyAssignment(n)) nm=n.name?.getText()??name;
  if ((ts.isFunctionDeclaration(n)||ts.isArrowFunction(n)||ts.isFunctionExpression(n)||ts.isMethodDeclaration(n)) && n.body) { const a=s.getLineAndCharacterOfPosition(n.getStart()).line,b=s.getLineAndCharacterOfPosition(n.end).line; if (b-a+1>=75) out.push([b-a+1,f,nm,a+1]); }
  ts.forEachChild(n,c=>visit(c,nm)); }; visit(s,''); }
out.sort((a,b)=>b[0]-a[0]); for (const o of out) console.log(o.join(' '));
