// Characters that move the cursor, turn the direction of writing, or are not seen at all: a line must read as it is.
const HIDDEN = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u061c\u200e\u200f\u2028\u2029\u202a-\u202e\u2066-\u2069]/g

/** A text of as many units, with a sign in place of each such character. */
export const visible = (text: string): string =>
  text.replace(HIDDEN, sign => {
    const code = sign.charCodeAt(0)
    return code < 0x20 ? String.fromCharCode(0x2400 + code) : code === 0x7f ? '\u2421' : '\ufffd'
  })
