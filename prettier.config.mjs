export default { semi: false, singleQuote: true, printWidth: 160, trailingComma: 'all' }
