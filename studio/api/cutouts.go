package api

import (
	"net/http"
	"sync"

	"capstan/core/cutout"
	"capstan/core/doc"

	"github.com/gin-gonic/gin"
)

// cutouts keeps what was made ready of the picture that is cut out: strokes follow one another on the same.
type cutouts struct {
	mu     sync.Mutex
	hash   string
	source *cutout.Source
}

// of is the source of a picture. One is worked on at a time: a large one takes up to half a gigabyte meanwhile.
func (k *cutouts) of(s *Server, hash string) (*cutout.Source, error) {
	if k.hash == hash && k.source != nil {
		return k.source, nil
	}
	img, err := s.files.Pixels(hash, 0)
	if err != nil {
		return nil, err
	}
	k.hash, k.source = hash, cutout.NewSource(img)
	return k.source, nil
}

// postCutout works out the mask of a cut-out, stores it, and answers both, with what should be known of it. Asked to propose, it finds out which sides of the
// picture are ground first; asked to look, it only says how well a foreground stands out.
func (s *Server) postCutout(c *gin.Context) {
	if _, ok := s.room(c); !ok {
		return
	}
	var body struct {
		Cut     *doc.Cutout `json:"cut"`
		Propose bool        `json:"propose"`
		Look    bool        `json:"look"` // only tell how well a foreground stands out
	}
	if !decode(c, maxJSON, &body) {
		return
	}
	if body.Cut == nil {
		body.Cut = &doc.Cutout{}
	}
	cut := body.Cut
	cut.Of = c.Param("hash")
	s.cutouts.mu.Lock()
	defer s.cutouts.mu.Unlock()
	if c.Request.Context().Err() != nil {
		return // another stroke has come meanwhile
	}
	source, err := s.cutouts.of(s, cut.Of)
	if err != nil {
		fail(c, err)
		return
	}
	if body.Look {
		_, clear := source.Propose()
		reply(c, http.StatusOK, gin.H{"clear": clear, "stands": cutout.Stands(clear)})
		return
	}
	cut = source.Filled(cut)
	if err := cut.Check(); err != nil {
		fail(c, err)
		return
	}
	answer := gin.H{"cut": cut}
	if body.Propose {
		ground, clear := source.Propose()
		cut.Ground = ground
		answer["clear"], answer["stands"] = clear, cutout.Stands(clear)
	}
	mask, told, err := source.Mask(cut)
	if err != nil {
		fail(c, err)
		return
	}
	hash, facts, err := s.files.TakeMask(mask, "Mask")
	if err != nil {
		fail(c, err)
		return
	}
	cut.Mask = hash
	answer["media"] = facts
	if told != nil {
		answer["told"] = told.Error()
	}
	reply(c, http.StatusOK, answer)
}

// postGround makes a picture of what lies behind a cut-out: its hole continued from around it.
func (s *Server) postGround(c *gin.Context) {
	if _, ok := s.room(c); !ok {
		return
	}
	var body struct {
		Mask string `json:"mask"`
		Name string `json:"name"`
	}
	if !decode(c, maxJSON, &body) {
		return
	}
	ctx, done, err := s.heavy(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer done()
	hash, facts, err := s.files.Ground(ctx, c.Param("hash"), body.Mask, body.Name)
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, gin.H{"hash": hash, "media": facts})
}
