package server

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"image"
	"image/jpeg"
	_ "image/png" // a telephone's own picture of its screen
	"io"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"golang.org/x/image/draw"

	"epitrope/core/job"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// Photo is a photograph of a job, without its content.
type Photo struct {
	ID     string    `json:"id"`
	Tied   string    `json:"tied" doc:"The step, the part or the gate that it shows"`
	Note   string    `json:"note,omitempty"`
	By     string    `json:"by"`
	At     time.Time `json:"at"`
	Digest string    `json:"digest" doc:"SHA-256 of what is kept"`
	Width  int       `json:"width"`
	Height int       `json:"height"`
}

func photo(p store.Photo) Photo {
	return Photo{p.ID, p.Tied, p.Note, p.ByWhom, p.TakenAt.UTC(), p.Digest, p.Width, p.Height}
}

// Limits of a photograph: in bytes as it comes, and in points.
const (
	maxPhoto    = 8 << 20
	mostPixels  = 40_000_000
	photoSide   = 2000
	photoFaith  = 85
	photoTypeIs = "image/jpeg"
)

func (a *api) registerPhotos(h huma.API) {
	picture := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
		photoTypeIs: {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}},
		"image/png": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}}
	on(h, people.Install, huma.Operation{OperationID: "addPhoto", Method: http.MethodPut, Path: "/api/jobs/{id}/photos/{photo}",
		RequestBody: picture, MaxBodyBytes: maxPhoto, Summary: "Keep a photograph; what it says of a place or a camera is left out",
		Errors: []int{404, 410, 413, 422, 503}}, a.addPhoto)
	on(h, people.Look, huma.Operation{OperationID: "photo", Method: http.MethodGet, Path: "/api/jobs/{id}/photos/{photo}",
		Summary: "A photograph", Errors: []int{404, 410, 503}}, a.photo)
}

// PhotoPath names a photograph in an address.
type PhotoPath struct {
	JobPath
	Photo string `path:"photo" format:"uuid" doc:"Made by the client: sent twice it counts once"`
}

// Picture is a picture as it was sent.
type Picture struct{ data []byte }

// Resolve takes the picture over from the request.
func (p *Picture) Resolve(ctx huma.Context) []error {
	data, err := io.ReadAll(http.MaxBytesReader(nil, io.NopCloser(ctx.BodyReader()), maxPhoto))
	var large *http.MaxBytesError
	switch {
	case errors.As(err, &large):
		return []error{problem(http.StatusRequestEntityTooLarge, "input", "A photograph may have 8 MB.")}
	case err != nil:
		return []error{problem(http.StatusUnprocessableEntity, "input", "The photograph did not come whole.")}
	}
	p.data = data
	return nil
}

// cleaned is a picture as it is kept: with its points and nothing else, no larger than pages show.
func cleaned(data []byte) (out []byte, width, height int, err error) {
	head, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return nil, 0, 0, errors.New("is no picture that can be read")
	}
	if head.Width < 1 || head.Height < 1 || head.Width*head.Height > mostPixels {
		return nil, 0, 0, errors.New("has too many points")
	}
	whole, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, 0, 0, errors.New("is a picture that breaks off")
	}
	small := shrunk(whole, photoSide)
	var b bytes.Buffer
	if err := jpeg.Encode(&b, small, &jpeg.Options{Quality: photoFaith}); err != nil {
		return nil, 0, 0, err
	}
	return b.Bytes(), small.Bounds().Dx(), small.Bounds().Dy(), nil
}

// shrunk is a picture whose longer side has at most so many points, each the mean of those that it stands for.
func shrunk(whole image.Image, side int) image.Image {
	b := whole.Bounds()
	w, h := b.Dx(), b.Dy()
	longer := max(w, h)
	if longer <= side {
		return whole
	}
	to := image.NewRGBA(image.Rect(0, 0, max(1, w*side/longer), max(1, h*side/longer)))
	draw.ApproxBiLinear.Scale(to, to.Bounds(), whole, b, draw.Src, nil)
	return to
}

func (a *api) addPhoto(ctx context.Context, in *struct {
	PhotoPath
	Picture
	Tied string    `query:"tied" required:"true" minLength:"1" maxLength:"60"`
	Note string    `query:"note" maxLength:"200"`
	At   time.Time `query:"at" required:"true"`
}) (*body[Photo], error) {
	var content []byte
	var width, height int
	if err := a.readers.take(ctx, func() (err error) {
		content, width, height, err = cleaned(in.data)
		return err
	}); err != nil {
		return nil, inputProblem(job.Problems{{Field: "photo", Value: short(http.DetectContentType(in.data)), Wrong: err.Error(),
			Allowed: "a JPEG or PNG picture of at most 8 MB and 40 million points"}})
	}
	sum := sha256.Sum256(content)
	p := store.Photo{ID: strings.ToLower(in.Photo), Tied: in.Tied, Note: in.Note, ByWhom: person(ctx).Name,
		PersonID: optionalID(person(ctx).ID), TakenAt: who(ctx).byOurClock(in.At),
		Digest: hex.EncodeToString(sum[:]), Width: width, Height: height, Content: content}
	if err := a.store(ctx).AddPhoto(ctx, in.ID, p); err != nil {
		return nil, answer(err)
	}
	kept, err := a.store(ctx).Photo(ctx, in.ID, p.ID)
	if err != nil {
		return nil, answer(err)
	}
	return &body[Photo]{photo(kept)}, nil
}

func (a *api) photo(ctx context.Context, in *PhotoPath) (*fileAnswer, error) {
	if uuid.Validate(in.Photo) != nil {
		return nil, answer(store.ErrNotFound)
	}
	p, err := a.store(ctx).Photo(ctx, in.ID, in.Photo)
	if err != nil {
		return nil, answer(err)
	}
	return &fileAnswer{photoTypeIs, "inline", p.Content}, nil
}
