package server

import (
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"
	"github.com/segmentio/encoding/json"

	"undaris/store"
)

// Legal says why a thing of the store cannot be used: nobody could have kept it here. It asks
// what is asked of a page that keeps one, so that whatever was kept is legal. A plan that no
// longer fits its chart is none: it is fitted when it is read.
func Legal(thing any) (err error) {
	defer func() {
		if fault := recover(); fault != nil { // a reader that fails cannot show it either
			err = fmt.Errorf("it cannot be read (%v)", fault)
		}
	}()
	switch t := thing.(type) {
	case store.Chart:
		return legal(wireChart(t).ChartBody, func(b ChartBody) error {
			if err := shaped(t.Plan); err != nil {
				return err
			}
			_, err := b.stored()
			return err
		})
	case store.Lick:
		return legal(lickBody(t), func(b LickBody) error { _, err := b.stored(); return err })
	case store.Line:
		return legal(wireLine(t).LineBody, legalLine)
	case store.Take:
		return legal(wireTake(t).TakeBody, func(b TakeBody) error {
			_, err := storedTake(store.DefaultPlayer, b)
			return errors.Join(legalLine(b.Line), err)
		})
	case store.Set:
		return legal(wireSet(t).SetBody, func(b SetBody) error { _, err := b.stored(); return err })
	case store.Recording:
		return legal(wireRecording(t).RecordingBody, func(b RecordingBody) error { _, err := b.stored(); return err })
	case store.Player:
		return legal(t, checkPlayer)
	case store.Entry:
		return legalEntry(t)
	case store.Assignment:
		return legalAssignment(t)
	case store.Results:
		var d Results
		return json.Unmarshal([]byte(t.Document), &d)
	}
	return nil
}

// legal asks of a body what is asked of one that comes.
func legal[B any](body B, check func(B) error) error {
	if err := shaped(body); err != nil {
		return err
	}
	return check(body)
}

// shapes are the schemas of bodies, each made once.
var shapes = struct {
	sync.Mutex
	*huma.ModelValidator
}{ModelValidator: huma.NewModelValidator()}

// shaped checks a body against its own schema.
func shaped(body any) error {
	text, err := json.Marshal(body)
	if err != nil {
		return err
	}
	var value any
	if err := json.Unmarshal(text, &value); err != nil {
		return err
	}
	shapes.Lock()
	defer shapes.Unlock()
	if errs := shapes.Validate(reflect.TypeOf(body), value); len(errs) > 0 {
		return problem(http.StatusUnprocessableEntity, "validation failed", errs...)
	}
	return nil
}

func legalLine(b LineBody) error {
	if b.Tuning == "" { // a kept one says what it is written for
		return errors.New("it does not say for which instrument it is")
	}
	_, err := storedLine(store.DefaultPlayer, b)
	return err
}

func legalEntry(e store.Entry) error {
	switch e.Kind {
	case store.LoggedCall, store.LoggedTake, store.LoggedRung, store.LoggedSkip, store.LoggedByEar:
	default:
		return fmt.Errorf("there is no kind %q", e.Kind)
	}
	if e.At.Year() < 1970 {
		return errors.New("it is of a time before there was this log")
	}
	for _, t := range e.Asked() {
		if err := t.Check(); err != nil {
			return err
		}
	}
	return nil
}

func legalAssignment(a store.Assignment) error {
	d, err := written(a)
	if err != nil {
		return err
	}
	t := a.Things
	if len(t.Charts) > len(d.Charts) || len(t.Licks) > len(d.Licks) || len(t.Lines) > len(d.Lines) || len(t.Exercises) > len(d.Exercises) {
		return errors.New("it has more things here than its document has")
	}
	return nil
}
