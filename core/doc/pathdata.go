package doc

import (
	"fmt"
	"sync"

	"capstan/core/geom"
)

// checkedPaths remembers path data that has been read without fault: while something is dragged the same documents are checked
// again and again (measured: an eighth of an update).
var checkedPaths = struct {
	sync.Mutex
	good map[string]bool
}{good: map[string]bool{}}

// maxChecked is when what is remembered is forgotten; drags make many lines that never come back.
const maxChecked = 4096

// longChecked is from how many bytes on data is read each time.
const longChecked = 16 << 10

// checkPath reports why path data cannot be read, nil if it can.
func checkPath(d string) error {
	if len(d) > MaxPath {
		return fmt.Errorf("it is longer than %d MB", MaxPath>>20)
	}
	checkedPaths.Lock()
	good := checkedPaths.good[d]
	checkedPaths.Unlock()
	if good {
		return nil
	}
	if _, err := geom.ParseData(d); err != nil {
		return err
	}
	if len(d) > longChecked {
		return nil
	}
	checkedPaths.Lock()
	defer checkedPaths.Unlock()
	if len(checkedPaths.good) >= maxChecked {
		clear(checkedPaths.good)
	}
	checkedPaths.good[d] = true
	return nil
}

var pathKind = &Kind{
	Name: PathKind, Words: "Drawing", Filled: true, Stroked: true, Joins: true,
	mayBeMade: func(string) bool { return true },
	check: func(c *checker, at string, l *Layer) bool {
		if err := checkPath(l.Path); err != nil {
			c.fail(at+".path", "cannot be read: %v", err)
		}
		return true
	},
}
