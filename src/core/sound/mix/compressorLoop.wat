;; The compressor of a channel, left and right at once: what compressorLoop.ts does, to the same bits. `npm run wasm` makes compressorLoopWasm.ts of it.
;; Buses are f64; all is given by where it lies in the memory, in bytes. What moves with each sample, and what is held from one to the next, is
;; loaded first and stored last: lanes are left and right.
(module
  (import "sound" "memory" (memory 1))

  ;; A compressor. Numbers: gain, its step, dB of reduction, the peak so far, then threshold, ratio, knee and make-up, and the shares of its way that
  ;; attack and release leave. `until`: frames until four are known.
  (func (export "compress")
    (param $frames i32) (param $left i32) (param $right i32) (param $numbers i32) (param $until i32)
    (local $end i32) (local $x v128) (local $gain v128) (local $step v128) (local $peak v128) (local $bits i64)
    (local $m f64) (local $z f64) (local $exponent f64) (local $level f64) (local $over f64) (local $into f64)
    (local $threshold f64) (local $ratio f64) (local $knee f64) (local $makeUp f64) (local $attack f64) (local $release f64)
    (local $wanted f64) (local $reduction f64)
    (local.set $gain (v128.load64_splat offset=0 (local.get $numbers)))
    (local.set $step (v128.load64_splat offset=8 (local.get $numbers)))
    (local.set $reduction (f64.load offset=16 (local.get $numbers)))
    (local.set $peak (v128.load64_splat offset=24 (local.get $numbers)))
    (local.set $threshold (f64.load offset=32 (local.get $numbers)))
    (local.set $ratio (f64.load offset=40 (local.get $numbers)))
    (local.set $knee (f64.load offset=48 (local.get $numbers)))
    (local.set $makeUp (f64.load offset=56 (local.get $numbers)))
    (local.set $attack (f64.load offset=64 (local.get $numbers)))
    (local.set $release (f64.load offset=72 (local.get $numbers)))
    (local.set $end (i32.add (local.get $left) (i32.shl (local.get $frames) (i32.const 3))))
    (loop $next
      (local.set $x (v128.load64_lane 1 (local.get $right) (v128.load64_zero (local.get $left))))
      (local.set $peak (f64x2.pmax (local.get $peak) (f64x2.abs (local.get $x))))
      (local.set $x (f64x2.mul (local.get $x) (local.get $gain)))
      (v128.store64_lane 0 (local.get $left) (local.get $x))
      (v128.store64_lane 1 (local.get $right) (local.get $x))
      (local.set $gain (f64x2.add (local.get $gain) (local.get $step)))
      (local.set $until (i32.sub (local.get $until) (i32.const 1)))
      (if (i32.eqz (local.get $until))
        (then
          (local.set $until (i32.const 4))
          ;; The level in dB, by log2 of math.ts.
          (local.set $m (f64.max
            (f64.max (f64x2.extract_lane 0 (local.get $peak)) (f64x2.extract_lane 1 (local.get $peak)))
            (f64.const 1e-9)))
          (local.set $peak (v128.const f64x2 0 0))
          (local.set $bits (i64.reinterpret_f64 (local.get $m)))
          (local.set $exponent (f64.convert_i64_s (i64.sub (i64.shr_u (local.get $bits) (i64.const 52)) (i64.const 1023))))
          (local.set $m (f64.reinterpret_i64
            (i64.or (i64.and (local.get $bits) (i64.const 0x000fffffffffffff)) (i64.const 0x3ff0000000000000))))
          (if (f64.gt (local.get $m) (f64.const 1.4142135623730951))
            (then
              (local.set $m (f64.mul (local.get $m) (f64.const 0.5)))
              (local.set $exponent (f64.add (local.get $exponent) (f64.const 1)))))
          (local.set $m (f64.div (f64.sub (local.get $m) (f64.const 1)) (f64.add (local.get $m) (f64.const 1))))
          (local.set $z (f64.mul (local.get $m) (local.get $m)))
          (local.set $level (f64.mul (f64.const 6.020599913279624) (f64.add (local.get $exponent)
            (f64.mul (f64.mul (f64.const 2.8853900817779268) (local.get $m))
              (f64.add (f64.const 1) (f64.mul (local.get $z)
                (f64.add (f64.const 0.3333333333333333) (f64.mul (local.get $z)
                  (f64.add (f64.const 0.2) (f64.mul (local.get $z)
                    (f64.add (f64.const 0.14285714285714285) (f64.mul (local.get $z) (f64.const 0.1111111111111111)))))))))))))
          ;; What the curve takes away of it.
          (local.set $over (f64.sub (local.get $level) (local.get $threshold)))
          (local.set $z (f64.mul (f64.const 2) (local.get $over)))
          (if (f64.le (local.get $z) (f64.neg (local.get $knee)))
            (then (local.set $wanted (f64.const 0)))
            (else
              (if (f64.ge (local.get $z) (local.get $knee))
                (then
                  (local.set $wanted (f64.sub (local.get $level)
                    (f64.add (local.get $threshold) (f64.div (local.get $over) (local.get $ratio))))))
                (else
                  (local.set $into (f64.add (local.get $over) (f64.div (local.get $knee) (f64.const 2))))
                  (local.set $wanted (f64.sub (local.get $level) (f64.add (local.get $level)
                    (f64.div
                      (f64.mul (f64.mul (f64.sub (f64.div (f64.const 1) (local.get $ratio)) (f64.const 1)) (local.get $into)) (local.get $into))
                      (f64.mul (f64.const 2) (local.get $knee))))))))))
          (local.set $reduction (f64.add (local.get $wanted) (f64.mul (f64.sub (local.get $reduction) (local.get $wanted))
            (select (local.get $attack) (local.get $release) (f64.gt (local.get $wanted) (local.get $reduction))))))
          (if (i32.and (f64.lt (local.get $reduction) (f64.const 1e-6)) (f64.eq (local.get $wanted) (f64.const 0)))
            (then (local.set $reduction (f64.const 0))))
          ;; Where the gain is to be, by exp2 of math.ts.
          (local.set $over (f64.mul (f64.const 0.16609640474436813) (f64.sub (local.get $makeUp) (local.get $reduction))))
          (local.set $exponent (f64.floor (f64.add (local.get $over) (f64.const 0.5))))
          (local.set $z (f64.mul (f64.sub (local.get $over) (local.get $exponent)) (f64.const 0.6931471805599453)))
          (local.set $m (f64.add (f64.const 1) (f64.mul (local.get $z)
            (f64.add (f64.const 1) (f64.mul (local.get $z)
              (f64.add (f64.const 0.5) (f64.mul (local.get $z)
                (f64.add (f64.const 0.16666666666666666) (f64.mul (local.get $z)
                  (f64.add (f64.const 0.041666666666666664) (f64.mul (local.get $z)
                    (f64.add (f64.const 0.008333333333333333) (f64.mul (local.get $z)
                      (f64.add (f64.const 0.001388888888888889) (f64.mul (local.get $z) (f64.const 0.0001984126984126984))))))))))))))))
          (local.set $exponent (f64.max (f64.const -1000) (f64.min (f64.const 1000) (local.get $exponent))))
          (local.set $m (f64.mul (local.get $m) (f64.reinterpret_i64
            (i64.shl (i64.add (i64.trunc_f64_s (local.get $exponent)) (i64.const 1023)) (i64.const 52)))))
          (local.set $step (f64x2.splat (f64.div (f64.sub (local.get $m) (f64x2.extract_lane 0 (local.get $gain))) (f64.const 4))))))
      (local.set $left (i32.add (local.get $left) (i32.const 8)))
      (local.set $right (i32.add (local.get $right) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $left) (local.get $end))))
    (f64.store offset=0 (local.get $numbers) (f64x2.extract_lane 0 (local.get $gain)))
    (f64.store offset=8 (local.get $numbers) (f64x2.extract_lane 0 (local.get $step)))
    (f64.store offset=16 (local.get $numbers) (local.get $reduction))
    (f64.store offset=24 (local.get $numbers)
      (f64.max (f64x2.extract_lane 0 (local.get $peak)) (f64x2.extract_lane 1 (local.get $peak)))))
)
