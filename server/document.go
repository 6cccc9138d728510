package server

import (
	"crypto/rand"
	"encoding/hex"
	"fmt"
	"net/http"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/validation"
	"github.com/segmentio/encoding/json"

	"undaris/core/say"
)

// The kinds of documents that travel between players as files.
const (
	assignmentKind = "undaris assignment"
	resultsKind    = "undaris results"
)

// documentVersion is the version of both that is written here.
const documentVersion = 1

// reference is a new one: 16 hexadecimal digits, chosen at random.
func reference() string {
	b := make([]byte, 8)
	_, _ = rand.Read(b) // never fails
	return hex.EncodeToString(b)
}

// document reads a JSON document of a kind. What is not a document of that kind is
// refused. Of one that is, an entry of a list that cannot be used is left out and reads
// as empty, so that the others keep their places; that, and what this version knows
// nothing of, is said. What else is wrong refuses it.
func document[T any](api huma.API, data []byte, kind string) (doc T, said []string, err error) {
	no := func(why string) error { return at("body", nil, fmt.Errorf("%s", why)) }
	var raw map[string]any
	if err := json.Unmarshal(data, &raw); err != nil {
		return doc, nil, no("this is no file of Undaris: it cannot be read as JSON")
	}
	if raw["kind"] != kind {
		is, _ := raw["kind"].(string)
		if is == assignmentKind || is == resultsKind {
			return doc, nil, no(say.F("this is a file of %s, not of %s", strings.TrimPrefix(is, "undaris "), strings.TrimPrefix(kind, "undaris ")))
		}
		return doc, nil, no(say.F("this is no file of Undaris: its kind is not “%s”", kind))
	}
	version, _ := raw["version"].(float64)
	switch {
	case version < 1:
		return doc, nil, no("this file does not say which version it is")
	case version > documentVersion:
		said = append(said, say.F("it was written by a newer Undaris (version %v of such files, here %d): what is not known here is left out, and kept in the file", version, documentVersion))
	}
	var found huma.ValidateResult
	registry := api.OpenAPI().Components.Schemas
	huma.Validate(registry, registry.Schema(reflect.TypeFor[T](), true, ""), huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, map[string]any(raw), &found)
	for _, e := range found.Errors {
		d, ok := e.(*huma.ErrorDetail)
		if !ok {
			return doc, said, no(e.Error())
		}
		list, index, name := partOf(d.Location)
		if d.Message == validation.MsgUnexpectedProperty {
			where := ""
			if name != "" {
				where = " of " + name
			}
			said = append(said, say.F("“%s”%s is not known here", d.Location[strings.LastIndexByte(d.Location, '.')+1:], where))
			continue
		}
		entries, _ := raw[list].([]any)
		if name == "" || index >= len(entries) {
			return doc, said, no(inWords(d))
		}
		if entries[index] != nil {
			entries[index] = nil
			said = append(said, say.F("%s is left out: %s", name, inWords(d)))
		}
	}
	known, err := json.Marshal(raw)
	if err == nil {
		err = json.Unmarshal(known, &doc)
	}
	if err != nil {
		return doc, said, problem(http.StatusUnprocessableEntity, "this file cannot be read: "+err.Error())
	}
	return doc, said, nil
}

// partOf takes "charts[2].tempo" apart: the list, the entry, and "chart 3". Without a
// list the name is empty.
func partOf(location string) (list string, index int, name string) {
	list, rest, ok := strings.Cut(location, "[")
	if !ok || strings.Contains(list, ".") {
		return "", 0, ""
	}
	if _, err := fmt.Sscanf(rest, "%d]", &index); err != nil {
		return "", 0, ""
	}
	return list, index, fmt.Sprintf("%s %d", strings.TrimSuffix(list, "s"), index+1)
}
