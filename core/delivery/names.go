package delivery

import (
	"cmp"
	"fmt"
	"strings"
	"time"
)

// Pattern is how a file is named where nothing else is asked for.
func (p Plan) Pattern() string {
	pattern := "{project}"
	if p.RowName != "" {
		pattern += "-{row}"
	}
	if p.SceneName != "" {
		pattern += "-{scene}"
	}
	return pattern + "-{size}"
}

// Name is what a file is called by a pattern, without its end. What stands in braces is put in: project, scene (of a still), row (of a variant), kind, size, version,
// date.
func (p Plan) Name(pattern, project string, version int, made time.Time) string {
	size := fmt.Sprintf("%dx%d", p.Width, p.Height)
	if p.Target > 0 && Formats[p.Format].Rests { // what it becomes is not known yet
		size = fmt.Sprintf("%dkb", p.Target/1000)
	}
	return strings.NewReplacer(
		"{project}", project, "{scene}", p.SceneName, "{row}", p.RowName, "{kind}", p.Format, "{size}", size,
		"{version}", fmt.Sprint("v", version), "{date}", made.Format("2006-01-02"),
	).Replace(cmp.Or(strings.TrimSpace(pattern), p.Pattern()))
}
