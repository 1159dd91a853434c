package delivery

import (
	"cmp"
	"fmt"
	"strings"
	"time"
)

// Pattern is how files are named where nothing else is asked for.
const Pattern = "{project}-{size}"

// Name is what a file is called by a pattern, without its end. What stands in braces is put in: project, kind, size, version, date.
func (p Plan) Name(pattern, project string, version int, made time.Time) string {
	size := fmt.Sprintf("%dx%d", p.Width, p.Height)
	if p.Target > 0 && Formats[p.Format].Rests { // what it becomes is not known yet
		size = fmt.Sprintf("%dkb", p.Target/1000)
	}
	return strings.NewReplacer(
		"{project}", project, "{kind}", p.Format, "{size}", size,
		"{version}", fmt.Sprint("v", version), "{date}", made.Format("2006-01-02"),
	).Replace(cmp.Or(strings.TrimSpace(pattern), Pattern))
}
