package ell.core.board;

/// The package sheet that ships. Body sizes are nominal and rounded, from memory of the outline
/// standards named beside them (JEDEC MO and TO outlines, EIA size codes and their metric
/// counterparts); masses and heights of connectors are typical, no source.
final class ShippedPackages {
  /// package, family, length, width, height, mass in g, joints, mark, heat, source
  static final String LINES =
      """
      SOT23|SOT23-3|TO236*,small outline,2.9,1.3,1.1,0.008,3,dot,,TO-236 from memory
      SOT23-5|SOT23-6|SOT23-8|SOT25|SOT26|TSOT*,small outline,2.9,1.6,1.15,0.014,0,dot,,MO-178 from memory
      SOT323*|SOT353*|SOT363*|SC70*|SC88*,small outline,2.0,1.25,1.0,0.006,0,dot,,SC-70 from memory
      SOT523*|SC75*|SC89*,small outline,1.6,0.8,0.8,0.003,0,dot,,SC-89 from memory
      SOT223*,small outline,6.5,3.5,1.7,0.12,4,dot,,TO-261 from memory
      SOT89*,small outline,4.5,2.5,1.5,0.05,3,dot,,TO-243 from memory
      TO252*|DPAK*,small outline,6.5,6.1,2.3,0.33,3,dot,,TO-252 from memory
      TO263*|D2PAK*,small outline,10.1,9.2,4.5,1.5,3,dot,,TO-263 from memory
      TO92*,tall,4.6,3.7,9.0,0.2,3,flat,yes,TO-92 from memory
      TO220*,tall,10.2,4.6,19.5,2.0,3,dot,,TO-220 from memory
      SOD123*,small outline,2.7,1.6,1.1,0.01,2,bar,,SOD-123 from memory
      SOD323*,small outline,1.7,1.25,0.9,0.005,2,bar,,SOD-323 from memory
      SOD523*,small outline,1.2,0.8,0.6,0.002,2,bar,,SOD-523 from memory
      SMA|DO214AC*,small outline,4.3,2.6,2.3,0.064,2,bar,,DO-214AC from memory
      SMB|DO214AA*,small outline,4.3,3.6,2.3,0.1,2,bar,,DO-214AA from memory
      SMC|DO214AB*,small outline,6.9,5.9,2.4,0.21,2,bar,,DO-214AB from memory
      MINIMELF*|DO213AA*|LL34,small outline,3.5,1.5,1.5,0.035,2,bar,,DO-213AA from memory
      MELF*|DO213AB*,small outline,5.0,2.5,2.5,0.12,2,bar,,DO-213AB from memory
      DO35*,tall,4.0,1.9,1.9,0.13,2,bar,,DO-35 from memory
      DO41*,tall,5.2,2.7,2.7,0.34,2,bar,,DO-41 from memory
      MSOP*|VSSOP*,dual,3.0,3.0,1.1,0.026,0,dot,,MO-187 from memory
      TSSOP8*,dual,4.4,3.0,1.2,0.035,8,dot,,MO-153 from memory
      TSSOP10*|TSSOP14*|TSSOP16*,dual,4.4,5.0,1.2,0.058,0,dot,,MO-153 from memory
      TSSOP20*,dual,4.4,6.5,1.2,0.075,20,dot,,MO-153 from memory
      TSSOP24*,dual,4.4,7.8,1.2,0.09,24,dot,,MO-153 from memory
      TSSOP28*,dual,4.4,9.7,1.2,0.12,28,dot,,MO-153 from memory
      TSSOP*,dual,6.1,12.5,1.2,0.2,0,dot,,MO-153 from memory
      SSOP16*|SSOP14*|SSOP8*,dual,5.3,6.2,2.0,0.12,0,dot,,MO-150 from memory
      SSOP20*|SSOP24*,dual,5.3,7.5,2.0,0.15,0,dot,,MO-150 from memory
      SSOP*,dual,5.3,10.2,2.0,0.25,0,dot,,MO-150 from memory
      SOIC8|SOIC8N*|SO8*|SOP8*|SOIC-8*,dual,3.9,4.9,1.75,0.08,8,dot,,MS-012 from memory
      SOIC14*|SO14*|SOP14*,dual,3.9,8.65,1.75,0.13,14,dot,,MS-012 from memory
      SOIC16W*|SO16W*,dual,7.5,10.3,2.65,0.4,16,dot,,MS-013 from memory
      SOIC16*|SO16*|SOP16*,dual,3.9,9.9,1.75,0.15,16,dot,,MS-012 from memory
      SOIC28*|SO28*|SOP28*,dual,7.5,17.9,2.65,0.75,28,dot,,MS-013 from memory
      SOIC*|SO18*|SO20*|SO24*|SOP*,dual,7.5,12.8,2.65,0.5,0,dot,,MS-013 from memory
      DIP8*|PDIP8*,dual,6.4,9.5,4.6,0.5,8,notch,,MS-001 from memory
      DIP14*|DIP16*|PDIP14*|PDIP16*,dual,6.4,19.3,4.6,1.1,0,notch,,MS-001 from memory
      DIP28*|PDIP28*,dual,7.2,35.0,4.6,2.2,28,notch,,MS-001 from memory
      DFN6*|UDFN6*|WSON6*|WDFN6*,quad,2.0,2.0,0.8,0.01,6,dot,,MO-229 from memory
      DFN8*|WSON8*|UDFN8*|WDFN8*|DFN10*|DFN12*|WSON*,quad,3.0,3.0,0.8,0.02,0,dot,,MO-229 from memory
      QFN12*|QFN16*|VQFN16*|WQFN16*|UQFN*|DFN*,quad,3.0,3.0,0.9,0.022,0,dot,,MO-220 from memory
      QFN20*|QFN24*|VQFN20*|VQFN24*|WQFN20*|WQFN24*,quad,4.0,4.0,0.9,0.04,0,dot,,MO-220 from memory
      QFN28*|QFN32*|VQFN28*|VQFN32*|WQFN28*|WQFN32*,quad,5.0,5.0,0.9,0.06,0,dot,,MO-220 from memory
      QFN40*|QFN36*|VQFN40*|VQFN36*,quad,6.0,6.0,0.9,0.09,0,dot,,MO-220 from memory
      QFN48*|QFN44*|VQFN48*|VQFN44*,quad,7.0,7.0,0.9,0.13,0,dot,,MO-220 from memory
      QFN64*|QFN56*|VQFN64*|QFN*|VQFN*|WQFN*,quad,9.0,9.0,0.9,0.2,0,dot,,MO-220 from memory
      LQFP32*|TQFP32*|QFP32*|VQFP32*|LQFP48*|TQFP48*|QFP48*|VQFP48*,quad,7.0,7.0,1.6,0.18,0,dot,,MS-026 from memory
      LQFP44*|TQFP44*|QFP44*|LQFP64*|TQFP64*|QFP64*|VQFP64*|LQFP52*,quad,10.0,10.0,1.6,0.36,0,dot,,MS-026 from memory
      LQFP80*|TQFP80*|QFP80*,quad,12.0,12.0,1.6,0.5,80,dot,,MS-026 from memory
      LQFP144*|TQFP144*|QFP144*,quad,20.0,20.0,1.6,1.35,144,dot,,MS-026 from memory
      LQFP*|TQFP*|QFP*|VQFP*,quad,14.0,14.0,1.6,0.7,0,dot,,MS-026 from memory
      PLCC*,quad,11.4,11.4,4.4,1.1,0,notch,,MO-047 from memory
      BGA*|FBGA*|TFBGA*|LFBGA*|UFBGA*|VFBGA*|CSP*|WLCSP*,balls,8.0,8.0,1.2,0.15,0,dot,,MO-275 from memory
      HC49*,tall,11.4,4.7,4.0,0.6,2,none,,typical
      USBC*|USB-C*|TYPEC*,connector,8.9,7.4,3.2,1.2,0,none,yes,typical
      USBMICRO*|MICROUSB*|USB-MICRO*,connector,7.5,5.0,2.6,0.6,5,none,yes,typical
      USBMINI*|MINIUSB*,connector,7.7,9.2,4.0,1.0,5,none,yes,typical
      USBA*|USB-A*,connector,13.1,14.5,7.0,3.2,4,none,yes,typical
      USBB*|USB-B*,connector,12.0,16.0,10.8,4.2,4,none,yes,typical
      RJ45*|8P8C*,connector,16.0,21.0,13.5,7.5,0,none,yes,typical
      BARREL*|DCJACK*,connector,9.0,14.0,11.0,4.0,3,none,yes,typical
      JSTXH*|JSTPH*,connector,7.5,5.8,7.0,0.4,0,dot,yes,typical
      TACT6*|TACTSWITCH*|SWTACT*,connector,6.0,6.0,4.3,0.3,4,none,yes,typical
      SD*CARD*|MICROSD*,connector,14.0,15.0,1.9,1.3,0,none,yes,typical
      """;

  private ShippedPackages() {}
}
