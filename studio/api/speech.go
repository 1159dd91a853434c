package api

import (
	"bytes"
	"net/http"

	"capstan/core/doc"
	"capstan/studio/speech"

	"github.com/gin-gonic/gin"
)

// listVoices lists the voices that texts can be spoken by, or says why there are none.
func (s *Server) listVoices(c *gin.Context) {
	list, err := s.voice.Voices(c.Request.Context())
	if err != nil {
		reply(c, http.StatusOK, gin.H{"why": inWords(err).Error(), "voices": []speech.Voice{}, "variants": []speech.Voice{}})
		return
	}
	reply(c, http.StatusOK, gin.H{"why": "", "voices": list, "variants": speech.Variants})
}

// speak makes a voice of a text, and takes it in as a recording.
func (s *Server) speak(c *gin.Context) {
	if _, ok := s.room(c); !ok {
		return
	}
	var how doc.Spoken
	if !decode(c, 1<<16, &how) {
		return
	}
	ctx, done, err := s.heavy(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer done()
	said, err := speech.Say(ctx, s.voice, how)
	if err != nil {
		fail(c, err)
		return
	}
	hash, facts, err := s.files.TakeSound(ctx, bytes.NewReader(said.WAV), "Voice.wav")
	if err != nil {
		fail(c, err)
		return
	}
	how.Lines, how.Words = said.Lines, said.Words
	reply(c, http.StatusCreated, gin.H{"hash": hash, "media": facts, "spoken": how})
}
