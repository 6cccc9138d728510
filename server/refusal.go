package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"undaris/core/say"
	"undaris/store"
)

// refuse ends a request with a problem document (RFC 9457).
func refuse(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	json.NewEncoder(w).Encode(huma.ErrorModel{Title: http.StatusText(status), Status: status, Detail: detail})
}

// at makes a 422 problem document that points at the field in fault; of no error
// it makes none.
func at(location string, value any, err error) error {
	if err == nil {
		return nil
	}
	if f, ok := value.(float64); ok && (math.IsNaN(f) || math.IsInf(f, 0)) {
		value = fmt.Sprint(f) // JSON has no such number
	}
	return huma.Error422UnprocessableEntity(err.Error(), &huma.ErrorDetail{Message: err.Error(), Location: location, Value: value})
}

// problem makes a problem document; where it only says that validation failed,
// it says in words what first.
func problem(status int, msg string, errs ...error) huma.StatusError {
	doc := &huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: msg}
	for _, err := range errs {
		var detail huma.ErrorDetailer
		switch {
		case errors.As(err, &detail):
			doc.Errors = append(doc.Errors, detail.ErrorDetail())
		case err != nil:
			doc.Errors = append(doc.Errors, &huma.ErrorDetail{Message: err.Error()})
		}
	}
	if msg == "validation failed" && len(doc.Errors) > 0 {
		doc.Detail = inWords(doc.Errors[0])
	}
	return doc
}

// rules are what validation says, and how a player would say it of a field @
// that is = and should be #.
var rules = []struct{ begins, says string }{
	{"expected number >= ", "@ is =; it is # at least"},
	{"expected number <= ", "@ is =; it is # at most"},
	{"expected array length <= ", "@ has more than the # entries that can be kept"},
	{"expected length <= ", "@ is longer than the # characters that can be kept"},
	{"expected required property ", "# is missing"},
	{"required query parameter is missing", "@ is missing"},
	{"unexpected property", "there is no @ here"},
}

// inWords says what the validation of a field found.
func inWords(e *huma.ErrorDetail) string {
	name := e.Location[strings.LastIndexByte(e.Location, '.')+1:]
	for _, rule := range rules {
		if rest, ok := strings.CutPrefix(e.Message, rule.begins); ok {
			return strings.NewReplacer("@", name, "=", fmt.Sprint(e.Value), "#", strings.TrimSuffix(rest, " to be present")).Replace(rule.says)
		}
	}
	return name + ": " + e.Message
}

// stale is the refusal of a change of an old version, with what is there now.
type stale struct {
	*huma.ErrorModel
	Current any `json:"current" doc:"what is there now"`
}

// faults are the answers to trouble with the disk.
var faults = map[store.Kind]int{
	store.Full: http.StatusInsufficientStorage, store.Locked: http.StatusServiceUnavailable, store.Damaged: http.StatusServiceUnavailable,
	store.ReadOnly: http.StatusServiceUnavailable, store.Gone: http.StatusServiceUnavailable, store.Broken: http.StatusServiceUnavailable,
	store.Unreadable: http.StatusConflict,
}

// told turns any error into a refusal in words. The cause of trouble goes to the log.
func (s *server) told(err error) error {
	var known huma.StatusError
	var fault *store.Fault
	switch {
	case err == nil, errors.As(err, &known):
		return err
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("there is no such thing; it may have been deleted")
	case errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return problem(499, "the question was taken back")
	case errors.As(err, &fault):
		s.log.Error("store", "says", fault.Says, "cause", fmt.Sprint(fault.Cause))
		return problem(faults[fault.Kind], fault.Says)
	case say.Refuses(err):
		return problem(http.StatusUnprocessableEntity, err.Error())
	}
	s.log.Error("unexpected", "error", err.Error())
	return problem(http.StatusInternalServerError, "Undaris made a mistake here; it was noted in its log, and nothing was saved")
}

// missing names what is not there.
func missing(name string, err error) error {
	if errors.Is(err, store.ErrNotFound) {
		return huma.Error404NotFound("there is no such " + name + "; it may have been deleted")
	}
	return err
}
