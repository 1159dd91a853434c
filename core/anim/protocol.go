package anim

// Bytes of GIF89a, with the sections of its specification that name them.
const (
	extensionIntroducer = 0x21 // 23 to 26
	graphicControl      = 0xF9 // 23
	application         = 0xFF // 26
	comment             = 0xFE // 24
	imageSeparator      = 0x2C // 20
	trailer             = 0x3B // 27

	tableFlag   = 0x80 // 18, 20: a table of colours follows
	eightBits   = 7 << 4
	transparent = 1      // 23: an index lets through
	keep        = 1 << 2 // 23: the frame is left in place
	wipe        = 2 << 2 // 23: its box is cleared
)

// loops is the application block by which GIFs go round: of sub-block 1, how often, 0 being for ever (common practice).
const loops = "NETSCAPE2.0"
