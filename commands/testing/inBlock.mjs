/** A package that calls something of its own by the name of a global (an icon: Map): in a block it may, whatever is handed in around it. */
const inBlock = { process: text => ({ code: `{${text}\n}` }) }

export default inBlock
