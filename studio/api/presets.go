package api

import (
	"encoding/json"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"capstan/core/delivery"
	"capstan/studio/store"
)

// Limits of presets.
const (
	longestPreset = 60  // characters of a name
	mostPresets   = 100 // of a project, with those for all
)

// preset is one that somebody saved, as it is sent.
type preset struct {
	store.Preset
	Asks json.RawMessage `json:"ask"`
}

func (s *Server) listPresets(c *gin.Context) {
	list, err := s.store.Presets(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	out := []preset{}
	for _, p := range list {
		out = append(out, preset{p, json.RawMessage(p.Ask)})
	}
	reply(c, http.StatusOK, gin.H{"presets": out})
}

func (s *Server) savePreset(c *gin.Context) {
	var in struct {
		Name string       `json:"name"`
		All  bool         `json:"all"` // for all projects
		Ask  delivery.Ask `json:"ask"`
	}
	if !decode(c, maxJSON, &in) {
		return
	}
	in.Name = strings.TrimSpace(in.Name)
	list, err := s.store.Presets(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	if in.Name == "" || len([]rune(in.Name)) > longestPreset || len(list) >= mostPresets {
		refuse(c, "preset.name", longestPreset, mostPresets)
		return
	}
	if _, known := delivery.Formats[in.Ask.Format]; !known {
		refuse(c, "export.format", in.Ask.Format)
		return
	}
	raw, err := json.Marshal(in.Ask)
	if err != nil {
		fail(c, err)
		return
	}
	p := store.Preset{ID: newID(), Name: in.Name, Ask: string(raw), CreatedAt: time.Now()}
	if !in.All {
		if _, _, err := s.store.Load(c.Param("id")); err != nil {
			fail(c, err)
			return
		}
		p.ProjectID = c.Param("id")
	}
	if err := s.store.SavePreset(&p); err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusCreated, preset{p, raw})
}

func (s *Server) deletePreset(c *gin.Context) {
	if err := s.store.DeletePreset(c.Param("id")); err != nil {
		fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}
