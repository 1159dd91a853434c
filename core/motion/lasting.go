package motion

import "capstan/core/doc"

// LastingPaths returns, for every scene of f by thread, the paths that last as long as the thread, with their times on
// that scene's clock: from clock 0 of the first scene of the thread's run of scenes to the end of its last. It is nil for a film that
// has none.
func LastingPaths(f *doc.Film, o *Order) []map[string][]Lasting {
	var out []map[string][]Lasting
	for i, s := range f.Scenes {
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				if !m.Drifts() || m.Lasts != doc.WholeThread {
					continue
				}
				if out == nil {
					out = make([]map[string][]Lasting, len(f.Scenes))
				}
				first, last := ThreadRun(f, i, l.Thread)
				begin, end := o.Begin(first), o.Begin(last)+o.Stays[last]
				for k := first; k <= last; k++ {
					if out[k] == nil {
						out[k] = map[string][]Lasting{}
					}
					at := o.Begin(k)
					iv := Interval{Begin: begin - at, End: end - at, Pass: end - begin, Passes: 1}
					out[k][l.Thread] = append(out[k][l.Thread], Lasting{m, iv})
				}
			}
			return true
		})
	}
	return out
}

// ThreadRun returns the first and last of the scenes around scene i that the thread lives in without a gap.
func ThreadRun(f *doc.Film, i int, thread string) (first, last int) {
	first, last = i, i
	if f.Scenes[i].Aside {
		return
	}
	for first > 0 && f.Scenes[first-1].Thread(thread) != nil {
		first--
	}
	for last+1 < len(f.Scenes) && !f.Scenes[last+1].Aside && f.Scenes[last+1].Thread(thread) != nil {
		last++
	}
	return
}
