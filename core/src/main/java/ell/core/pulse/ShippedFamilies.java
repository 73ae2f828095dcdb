package ell.core.pulse;

/// The logic families that ship. All written from memory of the standards that are named; a data
/// sheet decides.
final class ShippedFamilies {
  static final String LINES =
      """
      name,supply,vil,vih,vol,voh,slowest,most,source
      cmos3.3,3.3V,0.8,2.0,0.4,2.4,10ns/V,vdd+0.5,JESD8C LVCMOS 3.3 V from memory; edge common practice no source
      cmos2.5,2.5V,0.7,1.7,0.4,2.0,10ns/V,vdd+0.5,JESD8-5 from memory; edge common practice no source
      cmos1.8,1.8V,0.35vdd,0.65vdd,0.45,1.35,10ns/V,vdd+0.5,JESD8-7 from memory; edge common practice no source
      cmos1.5,1.5V,0.35vdd,0.65vdd,0.25vdd,0.75vdd,10ns/V,vdd+0.5,JESD8-11 from memory; edge common practice no source
      cmos1.2,1.2V,0.35vdd,0.65vdd,0.25vdd,0.75vdd,10ns/V,vdd+0.5,JESD8-12 from memory; edge common practice no source
      cmos5,5V,0.3vdd,0.7vdd,0.5,4.4,111ns/V,vdd+0.5,JESD7 HC at 4.5 V scaled from memory
      ttl5,5V,0.8,2.0,0.4,2.4,50ns/V,5.5,5 V TTL from memory; edge common practice no source
      tolerant3.3,3.3V,0.8,2.0,0.4,2.4,10ns/V,5.5,JESD8C with inputs that bear 5 V from memory; edge common practice no source
      schmitt3.3,3.3V,0.3vdd,0.7vdd,0.4,2.4,,vdd+0.5,an input with hysteresis counts any edge; typical no source
      twowire3.3,3.3V,0.3vdd,0.7vdd,0.4,0.7vdd,,vdd+0.5,NXP UM10204 table 9 from memory
      twowire5,5V,0.3vdd,0.7vdd,0.4,0.7vdd,,vdd+0.5,NXP UM10204 table 9 from memory
      """;

  private ShippedFamilies() {}
}
