;; An inverse Fourier transform: what fourier.ts does, two pairs at once, to the same bits. It is needed once, while the app opens:
;; there it is many times as quick as TypeScript that nobody has compiled yet. `npm run wasm` makes fourierWasm.ts of it. Everything is
;; f64, given by where it lies in the memory, in bytes.
(module
  (import "sound" "memory" (memory 1))

  ;; The first two rounds, whose turns are quarters.
  (func (export "joinFours") (param $size i32) (param $real i32) (param $imaginary i32)
    (local $end i32)
    (local $a f64) (local $b f64) (local $c f64) (local $d f64) (local $p f64) (local $q f64) (local $r f64) (local $s f64)
    (local.set $end (i32.add (local.get $real) (i32.shl (local.get $size) (i32.const 3))))
    (loop $next
      (local.set $a (f64.add (f64.load (local.get $real)) (f64.load offset=8 (local.get $real))))
      (local.set $b (f64.sub (f64.load (local.get $real)) (f64.load offset=8 (local.get $real))))
      (local.set $c (f64.add (f64.load offset=16 (local.get $real)) (f64.load offset=24 (local.get $real))))
      (local.set $d (f64.sub (f64.load offset=16 (local.get $real)) (f64.load offset=24 (local.get $real))))
      (local.set $p (f64.add (f64.load (local.get $imaginary)) (f64.load offset=8 (local.get $imaginary))))
      (local.set $q (f64.sub (f64.load (local.get $imaginary)) (f64.load offset=8 (local.get $imaginary))))
      (local.set $r (f64.add (f64.load offset=16 (local.get $imaginary)) (f64.load offset=24 (local.get $imaginary))))
      (local.set $s (f64.sub (f64.load offset=16 (local.get $imaginary)) (f64.load offset=24 (local.get $imaginary))))
      (f64.store (local.get $real) (f64.add (local.get $a) (local.get $c)))
      (f64.store (local.get $imaginary) (f64.add (local.get $p) (local.get $r)))
      (f64.store offset=8 (local.get $real) (f64.sub (local.get $b) (local.get $s)))
      (f64.store offset=8 (local.get $imaginary) (f64.add (local.get $q) (local.get $d)))
      (f64.store offset=16 (local.get $real) (f64.sub (local.get $a) (local.get $c)))
      (f64.store offset=16 (local.get $imaginary) (f64.sub (local.get $p) (local.get $r)))
      (f64.store offset=24 (local.get $real) (f64.add (local.get $b) (local.get $s)))
      (f64.store offset=24 (local.get $imaginary) (f64.sub (local.get $q) (local.get $d)))
      (local.set $imaginary (i32.add (local.get $imaginary) (i32.const 32)))
      (local.set $real (i32.add (local.get $real) (i32.const 32)))
      (br_if $next (i32.lt_u (local.get $real) (local.get $end)))))

  ;; All rounds after them. size: of the transform, a power of two, at least 8. real, imaginary: so many of each. sine, cosine: of all turns, half as many.
  (func (export "joinRounds")
    (param $size i32) (param $real i32) (param $imaginary i32) (param $sine i32) (param $cosine i32)
    (local $half i32) (local $stride i32) (local $from i32) (local $all i32) (local $end i32) (local $turn i32)
    (local $realA i32) (local $realB i32) (local $imaginaryA i32) (local $imaginaryB i32)
    (local $re v128) (local $im v128) (local $turnSine v128) (local $turnCosine v128) (local $x v128) (local $y v128)
    ;; All lengths are in bytes from here on.
    (local.set $all (i32.shl (local.get $size) (i32.const 3)))
    (local.set $half (i32.const 32))
    (loop $round
      (local.set $stride (i32.div_u (i32.shl (local.get $size) (i32.const 5)) (local.get $half)))
      (local.set $from (i32.const 0))
      (loop $start
        (local.set $realA (i32.add (local.get $real) (local.get $from)))
        (local.set $imaginaryA (i32.add (local.get $imaginary) (local.get $from)))
        (local.set $realB (i32.add (local.get $realA) (local.get $half)))
        (local.set $imaginaryB (i32.add (local.get $imaginaryA) (local.get $half)))
        (local.set $end (local.get $realB))
        (local.set $turn (i32.const 0))
        (loop $pair
          (local.set $turnSine (v128.load64_zero (i32.add (local.get $sine) (local.get $turn))))
          (local.set $turnCosine (v128.load64_zero (i32.add (local.get $cosine) (local.get $turn))))
          (local.set $turn (i32.add (local.get $turn) (local.get $stride)))
          (local.set $turnSine (v128.load64_lane 1 (i32.add (local.get $sine) (local.get $turn)) (local.get $turnSine)))
          (local.set $turnCosine (v128.load64_lane 1 (i32.add (local.get $cosine) (local.get $turn)) (local.get $turnCosine)))
          (local.set $turn (i32.add (local.get $turn) (local.get $stride)))
          (local.set $re (v128.load (local.get $realB)))
          (local.set $im (v128.load (local.get $imaginaryB)))
          (local.set $x
            (f64x2.sub
              (f64x2.mul (local.get $re) (local.get $turnCosine))
              (f64x2.mul (local.get $im) (local.get $turnSine))))
          (local.set $y
            (f64x2.add
              (f64x2.mul (local.get $re) (local.get $turnSine))
              (f64x2.mul (local.get $im) (local.get $turnCosine))))
          (local.set $re (v128.load (local.get $realA)))
          (local.set $im (v128.load (local.get $imaginaryA)))
          (v128.store (local.get $realB) (f64x2.sub (local.get $re) (local.get $x)))
          (v128.store (local.get $imaginaryB) (f64x2.sub (local.get $im) (local.get $y)))
          (v128.store (local.get $realA) (f64x2.add (local.get $re) (local.get $x)))
          (v128.store (local.get $imaginaryA) (f64x2.add (local.get $im) (local.get $y)))
          (local.set $realA (i32.add (local.get $realA) (i32.const 16)))
          (local.set $realB (i32.add (local.get $realB) (i32.const 16)))
          (local.set $imaginaryA (i32.add (local.get $imaginaryA) (i32.const 16)))
          (local.set $imaginaryB (i32.add (local.get $imaginaryB) (i32.const 16)))
          (br_if $pair (i32.lt_u (local.get $realA) (local.get $end))))
        (local.set $from (i32.add (local.get $from) (i32.shl (local.get $half) (i32.const 1))))
        (br_if $start (i32.lt_u (local.get $from) (local.get $all))))
      (local.set $half (i32.shl (local.get $half) (i32.const 1)))
      (br_if $round (i32.lt_u (local.get $half) (local.get $all)))))

  ;; The sum of squares of so many samples.
  (func (export "energy") (param $frames i32) (param $from i32) (result f64)
    (local $end i32) (local $sum f64) (local $x f64)
    (local.set $end (i32.add (local.get $from) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (f64.load (local.get $from)))
      (local.set $sum (f64.add (local.get $sum) (f64.mul (local.get $x) (local.get $x))))
      (local.set $from (i32.add (local.get $from) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $from) (local.get $end))))
    (local.get $sum))

  ;; Copies samples, so many times as loud, to f32.
  (func (export "copy") (param $frames i32) (param $from i32) (param $to i32) (param $gain f64)
    (local $end i32)
    (local.set $end (i32.add (local.get $from) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (f32.store (local.get $to) (f32.demote_f64 (f64.mul (f64.load (local.get $from)) (local.get $gain))))
      (local.set $to (i32.add (local.get $to) (i32.const 4)))
      (local.set $from (i32.add (local.get $from) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $from) (local.get $end))))))
