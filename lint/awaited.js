/** What is expected of was read before this is waited for: `expect(a).toBe(await b())` compares an `a` of before `b`. */
const awaited = {
  create: (context) => ({
    CallExpression(node) {
      const { callee } = node
      if (callee.type !== 'MemberExpression' || callee.object.type !== 'CallExpression') return
      const of = callee.object.callee
      if (of.type !== 'Identifier' || of.name !== 'expect') return
      for (const argument of node.arguments)
        if (argument.type === 'AwaitExpression')
          context.report({
            node: argument,
            message: 'What is expected of was read before this is waited for: wait first, then compare.',
          })
    },
  }),
}

export default { meta: { name: 'border' }, rules: { awaited } }
