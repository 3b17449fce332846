;; What channels of the mix do with each sample, left and right at once: what mixLoops.ts does, to the same bits. `npm run wasm` makes
;; mixLoopsWasm.ts of it. Buses are f64; all is given by where it lies in the memory, in bytes. What moves with each sample, and what is held from
;; one to the next, is loaded first and stored last: lanes are left and right.
(module
  (import "sound" "memory" (memory 1))

  ;; Three filters with trapezoidal integrators, one after the other, of which none moves: while one waits for its last sample, the next one works.
  ;; Numbers of each: a1, a2, a3, m0, m1, m2, six steps that are not looked at, then both integrators as pairs of lanes.
  (func (export "filter3")
    (param $frames i32) (param $left i32) (param $right i32) (param $numbers i32)
    (local $end i32) (local $x v128) (local $above v128) (local $band v128) (local $low v128)
    (local $a1a v128) (local $a2a v128) (local $a3a v128) (local $m0a v128) (local $m1a v128) (local $m2a v128) (local $s1a v128) (local $s2a v128)
    (local $a1b v128) (local $a2b v128) (local $a3b v128) (local $m0b v128) (local $m1b v128) (local $m2b v128) (local $s1b v128) (local $s2b v128)
    (local $a1c v128) (local $a2c v128) (local $a3c v128) (local $m0c v128) (local $m1c v128) (local $m2c v128) (local $s1c v128) (local $s2c v128)
    (local.set $a1a (v128.load64_splat offset=0 (local.get $numbers)))
    (local.set $a2a (v128.load64_splat offset=8 (local.get $numbers)))
    (local.set $a3a (v128.load64_splat offset=16 (local.get $numbers)))
    (local.set $m0a (v128.load64_splat offset=24 (local.get $numbers)))
    (local.set $m1a (v128.load64_splat offset=32 (local.get $numbers)))
    (local.set $m2a (v128.load64_splat offset=40 (local.get $numbers)))
    (local.set $s1a (v128.load offset=96 (local.get $numbers)))
    (local.set $s2a (v128.load offset=112 (local.get $numbers)))
    (local.set $a1b (v128.load64_splat offset=128 (local.get $numbers)))
    (local.set $a2b (v128.load64_splat offset=136 (local.get $numbers)))
    (local.set $a3b (v128.load64_splat offset=144 (local.get $numbers)))
    (local.set $m0b (v128.load64_splat offset=152 (local.get $numbers)))
    (local.set $m1b (v128.load64_splat offset=160 (local.get $numbers)))
    (local.set $m2b (v128.load64_splat offset=168 (local.get $numbers)))
    (local.set $s1b (v128.load offset=224 (local.get $numbers)))
    (local.set $s2b (v128.load offset=240 (local.get $numbers)))
    (local.set $a1c (v128.load64_splat offset=256 (local.get $numbers)))
    (local.set $a2c (v128.load64_splat offset=264 (local.get $numbers)))
    (local.set $a3c (v128.load64_splat offset=272 (local.get $numbers)))
    (local.set $m0c (v128.load64_splat offset=280 (local.get $numbers)))
    (local.set $m1c (v128.load64_splat offset=288 (local.get $numbers)))
    (local.set $m2c (v128.load64_splat offset=296 (local.get $numbers)))
    (local.set $s1c (v128.load offset=352 (local.get $numbers)))
    (local.set $s2c (v128.load offset=368 (local.get $numbers)))
    (local.set $end (i32.add (local.get $left) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (v128.load64_lane 1 (local.get $right) (v128.load64_zero (local.get $left))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2a)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1a) (local.get $s1a)) (f64x2.mul (local.get $a2a) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2a) (f64x2.mul (local.get $a2a) (local.get $s1a)))
          (f64x2.mul (local.get $a3a) (local.get $above))))
      (local.set $s1a (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1a)))
      (local.set $s2a (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2a)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0a) (local.get $x)) (f64x2.mul (local.get $m1a) (local.get $band)))
          (f64x2.mul (local.get $m2a) (local.get $low))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2b)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1b) (local.get $s1b)) (f64x2.mul (local.get $a2b) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2b) (f64x2.mul (local.get $a2b) (local.get $s1b)))
          (f64x2.mul (local.get $a3b) (local.get $above))))
      (local.set $s1b (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1b)))
      (local.set $s2b (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2b)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0b) (local.get $x)) (f64x2.mul (local.get $m1b) (local.get $band)))
          (f64x2.mul (local.get $m2b) (local.get $low))))
      (local.set $above (f64x2.sub (local.get $x) (local.get $s2c)))
      (local.set $band
        (f64x2.add (f64x2.mul (local.get $a1c) (local.get $s1c)) (f64x2.mul (local.get $a2c) (local.get $above))))
      (local.set $low
        (f64x2.add
          (f64x2.add (local.get $s2c) (f64x2.mul (local.get $a2c) (local.get $s1c)))
          (f64x2.mul (local.get $a3c) (local.get $above))))
      (local.set $s1c (f64x2.sub (f64x2.add (local.get $band) (local.get $band)) (local.get $s1c)))
      (local.set $s2c (f64x2.sub (f64x2.add (local.get $low) (local.get $low)) (local.get $s2c)))
      (local.set $x
        (f64x2.add
          (f64x2.add (f64x2.mul (local.get $m0c) (local.get $x)) (f64x2.mul (local.get $m1c) (local.get $band)))
          (f64x2.mul (local.get $m2c) (local.get $low))))
      (v128.store64_lane 0 (local.get $left) (local.get $x))
      (v128.store64_lane 1 (local.get $right) (local.get $x))
      (local.set $left (i32.add (local.get $left) (i32.const 8)))
      (local.set $right (i32.add (local.get $right) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $left) (local.get $end))))
    (v128.store offset=96 (local.get $numbers) (local.get $s1a))
    (v128.store offset=112 (local.get $numbers) (local.get $s2a))
    (v128.store offset=224 (local.get $numbers) (local.get $s1b))
    (v128.store offset=240 (local.get $numbers) (local.get $s2b))
    (v128.store offset=352 (local.get $numbers) (local.get $s1c))
    (v128.store offset=368 (local.get $numbers) (local.get $s2c)))

  ;; Saturation at four times the sample rate. Numbers: gain, makeUp, share, the step of each, then what the all-passes hold, as pairs of lanes.
  (func (export "saturate")
    (param $frames i32) (param $left i32) (param $right i32) (param $numbers i32)
    (local $end i32) (local $x v128) (local $y v128) (local $square v128) (local $n v128) (local $m v128) (local $first v128) (local $second v128) (local $half v128)
    (local $gain v128) (local $gainStep v128) (local $makeUp v128) (local $makeUpStep v128) (local $share v128) (local $shareStep v128)
    (local $u0 v128) (local $u1 v128) (local $u2 v128) (local $u3 v128) (local $v0 v128) (local $v1 v128) (local $v2 v128) (local $v3 v128) (local $g0 v128)
    (local $g1 v128) (local $g2 v128) (local $h0 v128) (local $h1 v128) (local $k0 v128) (local $k1 v128) (local $k2 v128) (local $w0 v128) (local $w1 v128)
    (local $d0 v128) (local $d1 v128) (local $d2 v128) (local $d3 v128) (local $e0 v128) (local $e1 v128) (local $e2 v128) (local $e3 v128)
    (local.set $gain (v128.load64_splat offset=0 (local.get $numbers)))
    (local.set $makeUp (v128.load64_splat offset=8 (local.get $numbers)))
    (local.set $share (v128.load64_splat offset=16 (local.get $numbers)))
    (local.set $gainStep (v128.load64_splat offset=24 (local.get $numbers)))
    (local.set $makeUpStep (v128.load64_splat offset=32 (local.get $numbers)))
    (local.set $shareStep (v128.load64_splat offset=40 (local.get $numbers)))
    (local.set $u0 (v128.load offset=48 (local.get $numbers)))
    (local.set $u1 (v128.load offset=64 (local.get $numbers)))
    (local.set $u2 (v128.load offset=80 (local.get $numbers)))
    (local.set $u3 (v128.load offset=96 (local.get $numbers)))
    (local.set $v0 (v128.load offset=112 (local.get $numbers)))
    (local.set $v1 (v128.load offset=128 (local.get $numbers)))
    (local.set $v2 (v128.load offset=144 (local.get $numbers)))
    (local.set $v3 (v128.load offset=160 (local.get $numbers)))
    (local.set $g0 (v128.load offset=176 (local.get $numbers)))
    (local.set $g1 (v128.load offset=192 (local.get $numbers)))
    (local.set $g2 (v128.load offset=208 (local.get $numbers)))
    (local.set $h0 (v128.load offset=224 (local.get $numbers)))
    (local.set $h1 (v128.load offset=240 (local.get $numbers)))
    (local.set $k0 (v128.load offset=256 (local.get $numbers)))
    (local.set $k1 (v128.load offset=272 (local.get $numbers)))
    (local.set $k2 (v128.load offset=288 (local.get $numbers)))
    (local.set $w0 (v128.load offset=304 (local.get $numbers)))
    (local.set $w1 (v128.load offset=320 (local.get $numbers)))
    (local.set $d0 (v128.load offset=336 (local.get $numbers)))
    (local.set $d1 (v128.load offset=352 (local.get $numbers)))
    (local.set $d2 (v128.load offset=368 (local.get $numbers)))
    (local.set $d3 (v128.load offset=384 (local.get $numbers)))
    (local.set $e0 (v128.load offset=400 (local.get $numbers)))
    (local.set $e1 (v128.load offset=416 (local.get $numbers)))
    (local.set $e2 (v128.load offset=432 (local.get $numbers)))
    (local.set $e3 (v128.load offset=448 (local.get $numbers)))
    (local.set $half (f64x2.splat (f64.const 0.5)))
    (local.set $end (i32.add (local.get $left) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (v128.load64_lane 1 (local.get $right) (v128.load64_zero (local.get $left))))
      (local.set $y (f64x2.mul (local.get $x) (local.get $gain)))
      ;; To twice the rate: two samples of one.
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.054217525755)) (f64x2.sub (local.get $y) (local.get $u1))) (local.get $u0)))
      (local.set $u0 (local.get $y))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.383087327291)) (f64x2.sub (local.get $n) (local.get $u2))) (local.get $u1)))
      (local.set $u1 (local.get $n))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.748720944436)) (f64x2.sub (local.get $m) (local.get $u3))) (local.get $u2)))
      (local.set $u2 (local.get $m))
      (local.set $u3 (local.get $n))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.196797969814)) (f64x2.sub (local.get $y) (local.get $v1))) (local.get $v0)))
      (local.set $v0 (local.get $y))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.573136411148)) (f64x2.sub (local.get $n) (local.get $v2))) (local.get $v1)))
      (local.set $v1 (local.get $n))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.914293709685)) (f64x2.sub (local.get $m) (local.get $v3))) (local.get $v2)))
      (local.set $v2 (local.get $m))
      (local.set $v3 (local.get $n))
      ;; The first of them: to four times the rate, bent as bend of mixLoops.ts does, and back.
      (local.set $y (local.get $u3))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.103503787937)) (f64x2.sub (local.get $y) (local.get $g1))) (local.get $g0)))
      (local.set $g0 (local.get $y))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.751914290756)) (f64x2.sub (local.get $n) (local.get $g2))) (local.get $g1)))
      (local.set $g1 (local.get $n))
      (local.set $g2 (local.get $m))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.371742874192)) (f64x2.sub (local.get $y) (local.get $h1))) (local.get $h0)))
      (local.set $h0 (local.get $y))
      (local.set $h1 (local.get $n))
      (local.set $y
        (f64x2.max
          (f64x2.splat (f64.const -1))
          (f64x2.min (f64x2.splat (f64.const 1)) (f64x2.mul (local.get $h1) (f64x2.splat (f64.const 0.45714285714285713))))))
      (local.set $square (f64x2.mul (local.get $y) (local.get $y)))
      (local.set $y
        (f64x2.mul
          (local.get $y)
          (f64x2.add
            (f64x2.splat (f64.const 2.1875))
            (f64x2.mul
              (local.get $square)
              (f64x2.add
                (f64x2.splat (f64.const -2.1875))
                (f64x2.mul
                  (local.get $square)
                  (f64x2.sub (f64x2.splat (f64.const 1.3125)) (f64x2.mul (f64x2.splat (f64.const 0.3125)) (local.get $square)))))))))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.103503787937)) (f64x2.sub (local.get $y) (local.get $k1))) (local.get $k0)))
      (local.set $k0 (local.get $y))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.751914290756)) (f64x2.sub (local.get $n) (local.get $k2))) (local.get $k1)))
      (local.set $k1 (local.get $n))
      (local.set $k2 (local.get $m))
      (local.set $y
        (f64x2.max
          (f64x2.splat (f64.const -1))
          (f64x2.min (f64x2.splat (f64.const 1)) (f64x2.mul (local.get $g2) (f64x2.splat (f64.const 0.45714285714285713))))))
      (local.set $square (f64x2.mul (local.get $y) (local.get $y)))
      (local.set $y
        (f64x2.mul
          (local.get $y)
          (f64x2.add
            (f64x2.splat (f64.const 2.1875))
            (f64x2.mul
              (local.get $square)
              (f64x2.add
                (f64x2.splat (f64.const -2.1875))
                (f64x2.mul
                  (local.get $square)
                  (f64x2.sub (f64x2.splat (f64.const 1.3125)) (f64x2.mul (f64x2.splat (f64.const 0.3125)) (local.get $square)))))))))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.371742874192)) (f64x2.sub (local.get $y) (local.get $w1))) (local.get $w0)))
      (local.set $w0 (local.get $y))
      (local.set $w1 (local.get $n))
      (local.set $first (f64x2.mul (local.get $half) (f64x2.add (local.get $k2) (local.get $w1))))
      ;; The second of them: to four times the rate, bent as bend of mixLoops.ts does, and back.
      (local.set $y (local.get $v3))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.103503787937)) (f64x2.sub (local.get $y) (local.get $g1))) (local.get $g0)))
      (local.set $g0 (local.get $y))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.751914290756)) (f64x2.sub (local.get $n) (local.get $g2))) (local.get $g1)))
      (local.set $g1 (local.get $n))
      (local.set $g2 (local.get $m))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.371742874192)) (f64x2.sub (local.get $y) (local.get $h1))) (local.get $h0)))
      (local.set $h0 (local.get $y))
      (local.set $h1 (local.get $n))
      (local.set $y
        (f64x2.max
          (f64x2.splat (f64.const -1))
          (f64x2.min (f64x2.splat (f64.const 1)) (f64x2.mul (local.get $h1) (f64x2.splat (f64.const 0.45714285714285713))))))
      (local.set $square (f64x2.mul (local.get $y) (local.get $y)))
      (local.set $y
        (f64x2.mul
          (local.get $y)
          (f64x2.add
            (f64x2.splat (f64.const 2.1875))
            (f64x2.mul
              (local.get $square)
              (f64x2.add
                (f64x2.splat (f64.const -2.1875))
                (f64x2.mul
                  (local.get $square)
                  (f64x2.sub (f64x2.splat (f64.const 1.3125)) (f64x2.mul (f64x2.splat (f64.const 0.3125)) (local.get $square)))))))))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.103503787937)) (f64x2.sub (local.get $y) (local.get $k1))) (local.get $k0)))
      (local.set $k0 (local.get $y))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.751914290756)) (f64x2.sub (local.get $n) (local.get $k2))) (local.get $k1)))
      (local.set $k1 (local.get $n))
      (local.set $k2 (local.get $m))
      (local.set $y
        (f64x2.max
          (f64x2.splat (f64.const -1))
          (f64x2.min (f64x2.splat (f64.const 1)) (f64x2.mul (local.get $g2) (f64x2.splat (f64.const 0.45714285714285713))))))
      (local.set $square (f64x2.mul (local.get $y) (local.get $y)))
      (local.set $y
        (f64x2.mul
          (local.get $y)
          (f64x2.add
            (f64x2.splat (f64.const 2.1875))
            (f64x2.mul
              (local.get $square)
              (f64x2.add
                (f64x2.splat (f64.const -2.1875))
                (f64x2.mul
                  (local.get $square)
                  (f64x2.sub (f64x2.splat (f64.const 1.3125)) (f64x2.mul (f64x2.splat (f64.const 0.3125)) (local.get $square)))))))))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.371742874192)) (f64x2.sub (local.get $y) (local.get $w1))) (local.get $w0)))
      (local.set $w0 (local.get $y))
      (local.set $w1 (local.get $n))
      (local.set $second (f64x2.mul (local.get $half) (f64x2.add (local.get $k2) (local.get $w1))))
      ;; Back to the rate.
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.054217525755)) (f64x2.sub (local.get $second) (local.get $d1))) (local.get $d0)))
      (local.set $d0 (local.get $second))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.383087327291)) (f64x2.sub (local.get $n) (local.get $d2))) (local.get $d1)))
      (local.set $d1 (local.get $n))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.748720944436)) (f64x2.sub (local.get $m) (local.get $d3))) (local.get $d2)))
      (local.set $d2 (local.get $m))
      (local.set $d3 (local.get $n))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.196797969814)) (f64x2.sub (local.get $first) (local.get $e1))) (local.get $e0)))
      (local.set $e0 (local.get $first))
      (local.set $m (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.573136411148)) (f64x2.sub (local.get $n) (local.get $e2))) (local.get $e1)))
      (local.set $e1 (local.get $n))
      (local.set $n (f64x2.add (f64x2.mul (f64x2.splat (f64.const 0.914293709685)) (f64x2.sub (local.get $m) (local.get $e3))) (local.get $e2)))
      (local.set $e2 (local.get $m))
      (local.set $e3 (local.get $n))
      (local.set $y (f64x2.mul (f64x2.mul (local.get $half) (f64x2.add (local.get $d3) (local.get $e3))) (local.get $makeUp)))
      (local.set $x (f64x2.add (local.get $x) (f64x2.mul (f64x2.sub (local.get $y) (local.get $x)) (local.get $share))))
      (v128.store64_lane 0 (local.get $left) (local.get $x))
      (v128.store64_lane 1 (local.get $right) (local.get $x))
      (local.set $gain (f64x2.add (local.get $gain) (local.get $gainStep)))
      (local.set $makeUp (f64x2.add (local.get $makeUp) (local.get $makeUpStep)))
      (local.set $share (f64x2.add (local.get $share) (local.get $shareStep)))
      (local.set $left (i32.add (local.get $left) (i32.const 8)))
      (local.set $right (i32.add (local.get $right) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $left) (local.get $end))))
    (f64.store offset=0 (local.get $numbers) (f64x2.extract_lane 0 (local.get $gain)))
    (f64.store offset=8 (local.get $numbers) (f64x2.extract_lane 0 (local.get $makeUp)))
    (f64.store offset=16 (local.get $numbers) (f64x2.extract_lane 0 (local.get $share)))
    (v128.store offset=48 (local.get $numbers) (local.get $u0))
    (v128.store offset=64 (local.get $numbers) (local.get $u1))
    (v128.store offset=80 (local.get $numbers) (local.get $u2))
    (v128.store offset=96 (local.get $numbers) (local.get $u3))
    (v128.store offset=112 (local.get $numbers) (local.get $v0))
    (v128.store offset=128 (local.get $numbers) (local.get $v1))
    (v128.store offset=144 (local.get $numbers) (local.get $v2))
    (v128.store offset=160 (local.get $numbers) (local.get $v3))
    (v128.store offset=176 (local.get $numbers) (local.get $g0))
    (v128.store offset=192 (local.get $numbers) (local.get $g1))
    (v128.store offset=208 (local.get $numbers) (local.get $g2))
    (v128.store offset=224 (local.get $numbers) (local.get $h0))
    (v128.store offset=240 (local.get $numbers) (local.get $h1))
    (v128.store offset=256 (local.get $numbers) (local.get $k0))
    (v128.store offset=272 (local.get $numbers) (local.get $k1))
    (v128.store offset=288 (local.get $numbers) (local.get $k2))
    (v128.store offset=304 (local.get $numbers) (local.get $w0))
    (v128.store offset=320 (local.get $numbers) (local.get $w1))
    (v128.store offset=336 (local.get $numbers) (local.get $d0))
    (v128.store offset=352 (local.get $numbers) (local.get $d1))
    (v128.store offset=368 (local.get $numbers) (local.get $d2))
    (v128.store offset=384 (local.get $numbers) (local.get $d3))
    (v128.store offset=400 (local.get $numbers) (local.get $e0))
    (v128.store offset=416 (local.get $numbers) (local.get $e1))
    (v128.store offset=432 (local.get $numbers) (local.get $e2))
    (v128.store offset=448 (local.get $numbers) (local.get $e3))))
