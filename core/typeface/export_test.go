package typeface

// MoreParts is the flag of a composite glyph that says that another part follows.
const MoreParts = moreParts

// Written puts tables together to a font file.
var Written = written
