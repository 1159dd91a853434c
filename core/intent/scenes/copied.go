package scenes

import (
	"capstan/core/doc"
	"capstan/core/intent"
)

// Copied are scenes to paste, with all that they need.
type Copied struct {
	Scenes []*doc.Scene          `json:"scenes"`
	From   string                `json:"from"`  // the project
	Media  map[string]*doc.Media `json:"media"` // that they use, by hash
}

// Copy returns scenes as they are pasted, in the order of the film.
func Copy(s *intent.Desk, ids []string) Copied {
	out := Copied{Scenes: []*doc.Scene{}, From: s.Doc.ID, Media: map[string]*doc.Media{}}
	for _, sc := range s.Doc.Film.Scenes {
		for _, id := range ids {
			if sc.ID == id {
				out.Scenes = append(out.Scenes, sc)
			}
		}
	}
	for hash, media := range s.Doc.Media {
		for _, sc := range out.Scenes {
			if sc.Background.Media == hash || doc.Uses(sc.Layers, hash, media) || doc.Hears(sc.Sounds, hash) {
				out.Media[hash] = media
			}
		}
	}
	return out
}
