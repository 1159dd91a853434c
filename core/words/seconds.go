package words

import (
	"fmt"
)

// Seconds says a time in ms: 0.60 s.
func Seconds(ms int64) string { return fmt.Sprintf("%.2f s", float64(ms)/1000) }
