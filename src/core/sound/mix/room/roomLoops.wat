;; What eight delay lines of a room do with each sample, two of them at once: what roomLoops.ts does, to the same bits. `npm run wasm` makes
;; roomLoopsWasm.ts of it. All is f64, and lies where roomLoops.ts says, in bytes.
(module
  (import "sound" "memory" (memory 1))

  ;; At `work`, for each 1024 bytes: what goes into the lines on the left and on the right, what is heard of them on the left and on the right, then what
  ;; comes out of each line, in whose place is put what goes into it. Losses: the gain of each line, the share of its highs that it keeps, sixteen steps
  ;; that are not looked at, then what each holds. Lanes are a line and the fourth after it.
  (func (export "goRound")
    (param $frames i32) (param $work i32) (param $losses i32)
    (local $end i32) (local $x v128) (local $y v128)
    (local $d0 v128) (local $d1 v128) (local $d2 v128) (local $d3 v128) (local $g0 v128) (local $g1 v128) (local $g2 v128) (local $g3 v128)
    (local $k0 v128) (local $k1 v128) (local $k2 v128) (local $k3 v128) (local $e0 v128) (local $e1 v128) (local $e2 v128) (local $e3 v128)
    (local $ae v128) (local $bf v128) (local $cg v128) (local $dh v128) (local $qu v128) (local $sw v128)
    (local $minus v128) (local $root v128) (local $tiny v128)
    (local.set $g0 (v128.load64_lane offset=32 1 (local.get $losses) (v128.load64_zero offset=0 (local.get $losses))))
    (local.set $g1 (v128.load64_lane offset=40 1 (local.get $losses) (v128.load64_zero offset=8 (local.get $losses))))
    (local.set $g2 (v128.load64_lane offset=48 1 (local.get $losses) (v128.load64_zero offset=16 (local.get $losses))))
    (local.set $g3 (v128.load64_lane offset=56 1 (local.get $losses) (v128.load64_zero offset=24 (local.get $losses))))
    (local.set $k0 (v128.load64_lane offset=96 1 (local.get $losses) (v128.load64_zero offset=64 (local.get $losses))))
    (local.set $k1 (v128.load64_lane offset=104 1 (local.get $losses) (v128.load64_zero offset=72 (local.get $losses))))
    (local.set $k2 (v128.load64_lane offset=112 1 (local.get $losses) (v128.load64_zero offset=80 (local.get $losses))))
    (local.set $k3 (v128.load64_lane offset=120 1 (local.get $losses) (v128.load64_zero offset=88 (local.get $losses))))
    (local.set $d0 (v128.load64_lane offset=288 1 (local.get $losses) (v128.load64_zero offset=256 (local.get $losses))))
    (local.set $d1 (v128.load64_lane offset=296 1 (local.get $losses) (v128.load64_zero offset=264 (local.get $losses))))
    (local.set $d2 (v128.load64_lane offset=304 1 (local.get $losses) (v128.load64_zero offset=272 (local.get $losses))))
    (local.set $d3 (v128.load64_lane offset=312 1 (local.get $losses) (v128.load64_zero offset=280 (local.get $losses))))
    ;; The sign of the second lane.
    (local.set $minus (v128.const f64x2 0 -0))
    ;; One over the square root of eight.
    (local.set $root (f64x2.splat (f64.const 0.35355339059327373)))
    (local.set $tiny (f64x2.splat (f64.const 1e-15)))
    (local.set $end (i32.add (local.get $work) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $e0 (v128.load64_lane offset=8192 1 (local.get $work) (v128.load64_zero offset=4096 (local.get $work))))
      (local.set $d0 (f64x2.add (local.get $d0) (f64x2.mul (f64x2.sub (local.get $e0) (local.get $d0)) (local.get $k0))))
      (local.set $e0 (f64x2.mul (local.get $d0) (local.get $g0)))
      (local.set $e1 (v128.load64_lane offset=9216 1 (local.get $work) (v128.load64_zero offset=5120 (local.get $work))))
      (local.set $d1 (f64x2.add (local.get $d1) (f64x2.mul (f64x2.sub (local.get $e1) (local.get $d1)) (local.get $k1))))
      (local.set $e1 (f64x2.mul (local.get $d1) (local.get $g1)))
      (local.set $e2 (v128.load64_lane offset=10240 1 (local.get $work) (v128.load64_zero offset=6144 (local.get $work))))
      (local.set $d2 (f64x2.add (local.get $d2) (f64x2.mul (f64x2.sub (local.get $e2) (local.get $d2)) (local.get $k2))))
      (local.set $e2 (f64x2.mul (local.get $d2) (local.get $g2)))
      (local.set $e3 (v128.load64_lane offset=11264 1 (local.get $work) (v128.load64_zero offset=7168 (local.get $work))))
      (local.set $d3 (f64x2.add (local.get $d3) (f64x2.mul (f64x2.sub (local.get $e3) (local.get $d3)) (local.get $k3))))
      (local.set $e3 (f64x2.mul (local.get $d3) (local.get $g3)))
      (local.set $ae (f64x2.add (local.get $e0) (local.get $e1)))
      (local.set $bf (f64x2.sub (local.get $e0) (local.get $e1)))
      (local.set $cg (f64x2.add (local.get $e2) (local.get $e3)))
      (local.set $dh (f64x2.sub (local.get $e2) (local.get $e3)))
      (local.set $qu (f64x2.sub (local.get $ae) (local.get $cg)))
      (local.set $sw (f64x2.sub (local.get $bf) (local.get $dh)))
      (f64.store offset=2048 (local.get $work)
        (f64.add
          (f64.mul (f64.const 0.44) (f64.load offset=0 (local.get $work)))
          (f64.mul
            (f64.const 0.385)
            (f64.sub
              (f64.add (f64x2.extract_lane 0 (local.get $sw)) (f64x2.extract_lane 1 (local.get $bf)))
              (f64x2.extract_lane 1 (local.get $dh))))))
      (f64.store offset=3072 (local.get $work)
        (f64.add
          (f64.mul
            (f64.const 0.385)
            (f64.sub (f64x2.extract_lane 0 (local.get $qu)) (f64x2.extract_lane 1 (local.get $qu))))
          (f64.mul (f64.const 0.44) (f64.load offset=1024 (local.get $work)))))
      ;; x and minus x; minus y and y.
      (local.set $x (v128.xor (v128.load64_splat offset=0 (local.get $work)) (local.get $minus)))
      (local.set $y (f64x2.neg (v128.xor (v128.load64_splat offset=1024 (local.get $work)) (local.get $minus))))
      (local.set $e0 (f64x2.add (local.get $ae) (local.get $cg)))
      (local.set $e0
        (f64x2.add
          (local.get $x)
          (f64x2.mul
            (f64x2.add
              (i8x16.shuffle 0 1 2 3 4 5 6 7 0 1 2 3 4 5 6 7 (local.get $e0) (local.get $e0))
              (v128.xor (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $e0) (local.get $e0)) (local.get $minus)))
            (local.get $root))))
      (local.set $e0 (v128.andnot (local.get $e0) (f64x2.lt (f64x2.abs (local.get $e0)) (local.get $tiny))))
      (v128.store64_lane offset=4096 0 (local.get $work) (local.get $e0))
      (v128.store64_lane offset=8192 1 (local.get $work) (local.get $e0))
      (local.set $e1 (f64x2.add (local.get $bf) (local.get $dh)))
      (local.set $e1
        (f64x2.add
          (local.get $y)
          (f64x2.mul
            (f64x2.add
              (i8x16.shuffle 0 1 2 3 4 5 6 7 0 1 2 3 4 5 6 7 (local.get $e1) (local.get $e1))
              (v128.xor (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $e1) (local.get $e1)) (local.get $minus)))
            (local.get $root))))
      (local.set $e1 (v128.andnot (local.get $e1) (f64x2.lt (f64x2.abs (local.get $e1)) (local.get $tiny))))
      (v128.store64_lane offset=5120 0 (local.get $work) (local.get $e1))
      (v128.store64_lane offset=9216 1 (local.get $work) (local.get $e1))
      (local.set $e2 (local.get $qu))
      (local.set $e2
        (f64x2.add
          (local.get $x)
          (f64x2.mul
            (f64x2.add
              (i8x16.shuffle 0 1 2 3 4 5 6 7 0 1 2 3 4 5 6 7 (local.get $e2) (local.get $e2))
              (v128.xor (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $e2) (local.get $e2)) (local.get $minus)))
            (local.get $root))))
      (local.set $e2 (v128.andnot (local.get $e2) (f64x2.lt (f64x2.abs (local.get $e2)) (local.get $tiny))))
      (v128.store64_lane offset=6144 0 (local.get $work) (local.get $e2))
      (v128.store64_lane offset=10240 1 (local.get $work) (local.get $e2))
      (local.set $e3 (local.get $sw))
      (local.set $e3
        (f64x2.add
          (local.get $y)
          (f64x2.mul
            (f64x2.add
              (i8x16.shuffle 0 1 2 3 4 5 6 7 0 1 2 3 4 5 6 7 (local.get $e3) (local.get $e3))
              (v128.xor (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $e3) (local.get $e3)) (local.get $minus)))
            (local.get $root))))
      (local.set $e3 (v128.andnot (local.get $e3) (f64x2.lt (f64x2.abs (local.get $e3)) (local.get $tiny))))
      (v128.store64_lane offset=7168 0 (local.get $work) (local.get $e3))
      (v128.store64_lane offset=11264 1 (local.get $work) (local.get $e3))
      (local.set $work (i32.add (local.get $work) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $work) (local.get $end))))
    (v128.store64_lane offset=256 0 (local.get $losses) (local.get $d0))
    (v128.store64_lane offset=288 1 (local.get $losses) (local.get $d0))
    (v128.store64_lane offset=264 0 (local.get $losses) (local.get $d1))
    (v128.store64_lane offset=296 1 (local.get $losses) (local.get $d1))
    (v128.store64_lane offset=272 0 (local.get $losses) (local.get $d2))
    (v128.store64_lane offset=304 1 (local.get $losses) (local.get $d2))
    (v128.store64_lane offset=280 0 (local.get $losses) (local.get $d3))
    (v128.store64_lane offset=312 1 (local.get $losses) (local.get $d3)))
)
