package doc

import "fmt"

// Limits of a document: what is read obeys them, and what commands and patches make. docs/security.md gives the reasons.
const (
	MaxBytes    = 20 << 20 // of a document as it is written
	MaxNesting  = 250      // of JSON in JSON, unknown fields included; groups in groups need 70
	MinSide     = 16       // page px a side
	MaxSide     = 8192     // page px a side
	MaxScenes   = 500      // in one film
	MaxLayers   = 2000     // in one scene
	MaxCopies   = 50000    // of layers in one scene at once, by moves that strew them: each is painted
	MaxDepth    = 32       // groups in groups
	MaxMasks    = 4        // of a group: painters hold a sheet for each
	MaxMoves    = 2000     // of a layer
	MaxTime     = 3600000  // ms of any single time
	MaxPlace    = 1e6      // px of any coordinate or size
	MaxText     = 20000    // characters of one text layer
	MinDuration = 10       // ms of a move
	MaxPath     = 4 << 20  // bytes of path data
	MaxCues     = 500      // of a scene
	MaxRuns     = 2000     // of a scene
	MaxGuides   = 500      // of a scene
	MaxMedia    = 5000     // of a project
	MaxCredit   = 300      // characters of who made a picture, and of how it may be used
	MaxStops    = 32       // colours of a gradient
	MaxEffect   = 500      // px of any blur or feather
	MaxShadow   = 1000     // px a shadow falls, either way
	MaxDashes   = 16       // lengths in a pattern of dashes
	MaxTone     = 5        // steps lighter or darker than a role
	MaxSaved    = 64       // colours, looks and sets of roles that are put aside
	MaxRoles    = 32       // of a scene
	MaxShares   = 1000     // of a box, that a point of a gradient lies away
)

// CheckNesting returns an error where JSON lies in JSON deeper than MaxNesting: decoders go down it call by call.
func CheckNesting(data []byte) error {
	depth, inString := 0, false
	for i := 0; i < len(data); i++ {
		switch data[i] {
		case '"':
			inString = !inString
		case '\\':
			if inString {
				i++
			}
		case '{', '[':
			if inString {
				break
			}
			if depth++; depth > MaxNesting {
				return fmt.Errorf("it lies in itself more than %d deep", MaxNesting)
			}
		case '}', ']':
			if !inString {
				depth--
			}
		}
	}
	return nil
}
